import type { ConditionId } from '@caderno/core/artefacts';
import { anchorAt, placeAnchor, type Anchor } from '@caderno/core/conditions';
import type { ConditionLine } from '@caderno/contract';
import type { RequirementId } from '@caderno/core/artefacts';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { MarkableText, type TextSpan } from '../basis/index.ts';
import { address, useFrame } from '../frame/index.ts';

interface Props {
  readonly requirement: RequirementId;
  readonly text: string;
  readonly conditions: readonly ConditionLine[];
  readonly current: ConditionId | null;
  /** Absent for readers. */
  readonly onMark?: (anchor: Anchor) => void;
}

/** The requirement's text with the words that conditions hang on; marking words offers a condition of them. */
export function RequirementText({ requirement, text, conditions, current, onMark }: Props) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const spans = useMemo(() => anchorSpans(requirement, text, conditions, current), [conditions, current, requirement, text]);
  const open = (ids: readonly string[]): void => {
    const condition = conditions.find((c) => ids.includes(c.id));
    if (condition !== undefined) void navigate(address.conditions(project, requirement, condition.id));
  };
  const mark = onMark === undefined ? {} : { mark: { label: 'Condition of these words', run: (start: number, end: number) => onMark(anchorAt(text, start, end)) } };
  return <MarkableText text={text} spans={spans} onSpans={open} {...mark} />;
}

function anchorSpans(requirement: RequirementId, text: string, conditions: readonly ConditionLine[], current: ConditionId | null): TextSpan[] {
  return conditions.flatMap(({ id, content }) => {
    const anchor = content.requirements.find((r) => r.id === requirement)?.anchor ?? null;
    const place = anchor === null ? null : placeAnchor(text, anchor);
    if (place === null || place.kind === 'gone') return [];
    const look = id === current ? 'bg-blue-wash shadow-[inset_0_-2px_0_var(--color-blue)]' : 'shadow-[inset_0_-1.5px_0_var(--color-blue)] hover:bg-blue-wash';
    return [{ id, start: place.start, end: place.end, className: `cursor-pointer ${look}`, title: `${id} ${content.title}` }];
  });
}
