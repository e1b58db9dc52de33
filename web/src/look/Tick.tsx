import type { ReactNode } from 'react';

interface Props {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly disabled?: boolean;
  /** What stands beside it has several lines: the first is beside it. */
  readonly atTop?: boolean;
  readonly className?: string;
  /** What is so when it is ticked. */
  readonly children: ReactNode;
}

/** A box to tick, with its words, which are pressed as well. On paper it says whether it is so. */
export function Tick({ checked, onChange, disabled = false, atTop = false, className = '', children }: Props) {
  return (
    <label className={`flex min-h-7 gap-2 ${atTop ? 'items-start' : 'items-center'} ${className}`}>
      <input type="checkbox" data-on-paper checked={checked} disabled={disabled} onChange={(event) => onChange(event.target.checked)} className={atTop ? 'mt-1' : ''} />
      {children}
    </label>
  );
}

interface InProps<T> extends Omit<Props, 'checked' | 'onChange'> {
  readonly item: T;
  /** Those that are ticked. */
  readonly of: readonly T[];
  readonly onChange: (of: readonly T[]) => void;
}

/** A box to tick for each of some: ticked, it is among them, behind the others. */
export function TickIn<T>({ item, of, onChange, ...rest }: InProps<T>) {
  return <Tick checked={of.includes(item)} onChange={(isIn) => onChange(isIn ? [...of, item] : of.filter((other) => other !== item))} {...rest} />;
}
