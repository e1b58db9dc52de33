interface Props {
  /** What is selected by it: `C-12`, `step 3`. */
  readonly name: string;
  readonly selected: boolean;
  /** Stays in sight although nothing points at it. */
  readonly shown?: boolean;
  /** Out of the tab order, where a key of the line does the same. */
  readonly byPointerOnly?: boolean;
  /** `through`: shift was held, all from the one before are meant. */
  readonly onSelect: (on: boolean, through: boolean) => void;
  readonly className?: string;
}

/** The box that selects a line of a list: seen when pointed at or reached by Tab, with a target of 24 px around it. Its line is a `group`. */
export function SelectMark({ name, selected, shown = false, byPointerOnly = false, onSelect, className = '' }: Props) {
  return (
    <label className={`grid size-6 shrink-0 place-items-center ${className}`}>
      <input
        type="checkbox"
        {...(byPointerOnly ? { tabIndex: -1 } : {})}
        aria-label={`Select ${name}`}
        checked={selected}
        onChange={(event) => onSelect(event.target.checked, event.nativeEvent instanceof MouseEvent && event.nativeEvent.shiftKey)}
        className={`size-3.5 ${selected || shown ? '' : 'opacity-0 focus:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100'}`}
      />
    </label>
  );
}
