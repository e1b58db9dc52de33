import type { StepId } from '@caderno/core/cases';

interface Props {
  readonly id: StepId;
  readonly number: number;
  readonly canEdit: boolean;
  readonly selected: boolean;
  readonly onSelect: (id: StepId, on: boolean, through: boolean) => void;
}

/** The number of a step; pointed at or reached by Tab it is a box to select the step by, with shift all between. */
export function SelectBox({ id, number, canEdit, selected, onSelect }: Props) {
  if (!canEdit) return <span className="w-[26px] shrink-0 font-mono text-xs text-ink2">{number}</span>;
  return (
    <span className="relative w-[26px] shrink-0 font-mono text-xs text-ink2">
      <span className={selected ? 'invisible' : 'group-hover:invisible'}>{number}</span>
      <input
        type="checkbox"
        aria-label={`Select step ${number}`}
        checked={selected}
        onChange={(event) => onSelect(id, event.target.checked, event.nativeEvent instanceof MouseEvent && event.nativeEvent.shiftKey)}
        className={`absolute left-0 top-1 size-3.5 ${selected ? '' : 'opacity-0 focus:opacity-100 group-hover:opacity-100'}`}
      />
    </span>
  );
}
