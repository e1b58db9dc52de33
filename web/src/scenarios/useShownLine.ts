import type { FeatureOutline } from '@caderno/core/scenarios';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import type { ShownLine } from './editor/FeatureEditor.tsx';

/** The line the address names (`#3`: scenario 3), or that somebody asked for. */
export function useShownLine(outline: FeatureOutline): { show: ShownLine | null; showLine: (line: number) => void } {
  const { hash, key } = useLocation();
  const [show, setShow] = useState<ShownLine | null>(null);
  const latest = useRef(outline);
  useEffect(() => {
    latest.current = outline;
  });
  useEffect(() => {
    const number = Number(hash.slice(1));
    const scenario = latest.current.scenarios.find((s) => s.number === number && number > 0);
    if (scenario !== undefined) setShow({ line: scenario.line, focus: false });
  }, [hash, key]);
  const showLine = useCallback((line: number) => setShow({ line, focus: true }), []);
  return { show, showLine };
}
