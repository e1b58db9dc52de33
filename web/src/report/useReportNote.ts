import { useState } from 'react';
import { useFrame } from '../frame/index.ts';

/** What one wants to say first; it stays in this browser until the next report. */
export function useReportNote(): readonly [note: string, setNote: (note: string) => void] {
  const { project, person } = useFrame();
  const place = `caderno-report-${project}-${person.id}`;
  const [note, setNote] = useState(() => localStorage.getItem(place) ?? '');
  return [
    note,
    (next) => {
      setNote(next);
      localStorage.setItem(place, next);
    },
  ];
}
