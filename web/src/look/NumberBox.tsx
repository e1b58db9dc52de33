import { useState, type ComponentProps } from 'react';
import { locale } from './locale.ts';

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'onChange' | 'min' | 'max'> {
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  /** Parts of one are taken too. */
  readonly withParts?: boolean;
  /** Null: the field was emptied. Who needs a number leaves that be, and the field shows the last one again. */
  readonly onChange: (value: number | null) => void;
}

/**
 * A number to type. What is on its way to one (`5` of 500, where 100 is the least) stays as typed, and is brought between least and most when one leaves.
 */
export function NumberBox({ value, min, max, withParts = false, onChange, className = '', onBlur, ...rest }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const taken = typed === null ? null : takenOf(typed, min, max, withParts);
  const isTaken = typed === null || taken !== null;
  // Once it was taken, it may have been changed from elsewhere since.
  const isOnItsWay = typed !== null && (taken === null || taken.number === null || taken.number === value);
  const type = (text: string): void => {
    setTyped(text);
    const now = takenOf(text, min, max, withParts);
    if (now !== null) onChange(now.number);
  };
  const leave = (): void => {
    const number = Number(typed);
    if (typed !== null && !isTaken && Number.isFinite(number)) onChange(Math.max(min, Math.min(max, withParts ? number : Math.round(number))));
    setTyped(null);
  };
  return (
    <input
      {...rest}
      type="number"
      min={min}
      max={max}
      value={isOnItsWay ? typed : (value ?? '')}
      aria-invalid={!isTaken}
      {...(isTaken ? {} : { title: `${withParts ? 'A' : 'A whole'} number from ${min.toLocaleString(locale())} to ${max.toLocaleString(locale())}` })}
      onChange={(event) => type(event.target.value)}
      onBlur={(event) => {
        leave();
        onBlur?.(event);
      }}
      className={`field-boxed ${className}`}
    />
  );
}

/** What a text is taken for; null: for nothing yet. */
function takenOf(text: string, min: number, max: number, withParts: boolean): { readonly number: number | null } | null {
  if (text === '') return { number: null };
  const number = Number(text);
  return number >= min && number <= max && (withParts || Number.isInteger(number)) ? { number } : null;
}
