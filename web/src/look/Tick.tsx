import type { ReactNode } from 'react';

interface Props {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
  readonly disabled?: boolean;
  readonly className?: string;
  /** What is so when it is ticked. */
  readonly children: ReactNode;
}

/** A box to tick, with its words, which are pressed as well. */
export function Tick({ checked, onChange, disabled = false, className = '', children }: Props) {
  return (
    <label className={`flex min-h-7 items-center gap-2 ${className}`}>
      <input type="checkbox" checked={checked} disabled={disabled} onChange={(event) => onChange(event.target.checked)} />
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
