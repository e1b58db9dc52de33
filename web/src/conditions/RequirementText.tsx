import type { ConditionInList } from '../api/index.ts';
import type { ConditionId } from '@caderno/core/artefacts';
import { anchorAt, placeAnchor, type Anchor } from '@caderno/core/conditions';
import type { RequirementId } from '@caderno/core/artefacts';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { MarkableText, type TextSpan } from '../text/index.ts';
import { address, useFrame } from '../frame/index.ts';

interface Props {
  readonly requirement: RequirementId;
  readonly text: string;
  readonly conditions: readonly ConditionInList[];
  readonly current: ConditionId | null;
  /** Absent for readers. */
  readonly onMark?: (anchor: Anchor) => void;
  readonly onAsk?: (start: number, end: number) => void;
}

/** The requirement's text with the words that conditions hang on; marking words offers a condition of them, or a question about them. */
export function RequirementText({ requirement, text, conditions, current, onMark, onAsk }: Props) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const spans = useMemo(() => anchorSpans(requirement, text, conditions, current), [conditions, current, requirement, text]);
  const open = (ids: readonly string[]): void => {
    const condition = conditions.find((c) => ids.includes(c.id));
    if (condition !== undefined) void navigate(address.conditions(project, requirement, condition.id));
  };
  const marks = [
    ...(onMark === undefined ? [] : [{ label: 'Make a condition', run: (start: number, end: number) => onMark(anchorAt(text, start, end)) }]),
    ...(onAsk === undefined ? [] : [{ label: 'Ask a question', run: onAsk }]),
  ];
  return <MarkableText text={text} spans={spans} onSpans={open} marks={marks} />;
}

function anchorSpans(requirement: RequirementId, text: string, conditions: readonly ConditionInList[], current: ConditionId | null): TextSpan[] {
  return conditions.flatMap(({ id, content }) => {
    const anchor = content.requirements.find((r) => r.id === requirement)?.anchor ?? null;
    const place = anchor === null ? null : placeAnchor(text, anchor);
    if (place === null || place.kind === 'gone') return [];
    const look = id === current ? 'bg-blue-wash shadow-[inset_0_-2px_0_var(--color-blue)]' : 'shadow-[inset_0_-1.5px_0_var(--color-blue)] hover:bg-blue-wash';
    return [{ id, start: place.start, end: place.end, className: `cursor-pointer ${look}`, title: `${id} ${content.title}` }];
  });
}
