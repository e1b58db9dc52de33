import type { StepId } from '@caderno/core/cases';
import { SelectMark } from '../look/index.ts';

interface Props {
  readonly id: StepId;
  readonly number: number;
  readonly canEdit: boolean;
  readonly selected: boolean;
  readonly onSelect: (id: StepId, on: boolean, through: boolean) => void;
}

/** The number of a step; pointed at or reached by Tab it is a box to select the step by, with shift all between. */
export function SelectBox({ id, number, canEdit, selected, onSelect }: Props) {
  if (!canEdit) return <span className="w-chip shrink-0 font-mono text-xs text-ink2">{number}</span>;
  return (
    <span className="relative w-chip shrink-0 font-mono text-xs text-ink2">
      <span className={selected ? 'invisible' : 'group-hover:invisible'}>{number}</span>
      <SelectMark name={`step ${number}`} selected={selected} onSelect={(on, through) => onSelect(id, on, through)} className="absolute -left-1 top-0" />
    </span>
  );
}
