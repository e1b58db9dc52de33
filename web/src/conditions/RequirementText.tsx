import type { ConditionId } from '@caderno/core/artefacts';
import { anchorAt, placeAnchor, type Anchor } from '@caderno/core/conditions';
import type { DesignCondition } from '@caderno/core/coverage';
import type { RequirementId } from '@caderno/core/artefacts';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { MarkdownText, markedSource, type TextSpan } from '../basis/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button } from '../look/index.ts';

interface Props {
  readonly requirement: RequirementId;
  readonly text: string;
  readonly conditions: readonly DesignCondition[];
  readonly current: ConditionId | null;
  /** Absent for readers. */
  readonly onMark?: (anchor: Anchor) => void;
}

interface Marking {
  readonly anchor: Anchor;
  readonly left: number;
  readonly top: number;
}

/** The requirement's text with the words that conditions hang on; marking words offers a condition of them. */
export function RequirementText({ requirement, text, conditions, current, onMark }: Props) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const box = useRef<HTMLDivElement>(null);
  const [marking, setMarking] = useState<Marking | null>(null);
  const spans = useMemo(() => anchorSpans(requirement, text, conditions, current), [conditions, current, requirement, text]);

  useEffect(() => {
    if (onMark === undefined) return undefined;
    const look = (): void => setMarking(box.current === null ? null : markingIn(box.current, text));
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, [onMark, text]);

  const open = (event: React.MouseEvent): void => {
    if (window.getSelection()?.isCollapsed === false) return;
    const ids = (event.target as HTMLElement).closest<HTMLElement>('[data-spans]')?.dataset.spans?.split(' ') ?? [];
    const condition = conditions.find((c) => ids.includes(c.id));
    if (condition !== undefined) void navigate(address.conditions(project, requirement, condition.id));
  };
  return (
    <div className="relative">
      {/* Clicking marked words is a shortcut; the list of conditions below does the same by keyboard. */}
      <div ref={box} onClick={open}>
        <MarkdownText text={text} spans={spans} />
      </div>
      {marking !== null && onMark !== undefined && (
        <div className="absolute z-20" style={{ left: marking.left, top: marking.top }}>
          <Button
            look="accent"
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => {
              onMark(marking.anchor);
              window.getSelection()?.removeAllRanges();
            }}
          >
            Condition of these words
          </Button>
        </div>
      )}
    </div>
  );
}

function anchorSpans(requirement: RequirementId, text: string, conditions: readonly DesignCondition[], current: ConditionId | null): TextSpan[] {
  return conditions.flatMap(({ id, content }) => {
    const anchor = content.requirements.find((r) => r.id === requirement)?.anchor ?? null;
    const place = anchor === null ? null : placeAnchor(text, anchor);
    if (place === null || place.kind === 'gone') return [];
    const look = id === current ? 'bg-blue-wash shadow-[inset_0_-2px_0_var(--color-blue)]' : 'shadow-[inset_0_-1.5px_0_var(--color-blue)] hover:bg-blue-wash';
    return [{ id, start: place.start, end: place.end, className: `cursor-pointer ${look}`, title: `${id} ${content.title}` }];
  });
}

function markingIn(box: HTMLElement, text: string): Marking | null {
  const stretch = markedSource(box, text);
  const selection = window.getSelection();
  if (stretch === null || selection === null || selection.rangeCount === 0) return null;
  const rect = selection.getRangeAt(0).getBoundingClientRect();
  const home = box.getBoundingClientRect();
  return { anchor: anchorAt(text, stretch.start, stretch.end), left: Math.max(0, Math.min(rect.left - home.left, home.width - 190)), top: rect.bottom - home.top + 6 };
}
