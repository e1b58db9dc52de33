import type { ComponentProps } from 'react';

interface Props<T extends string> extends Omit<ComponentProps<'select'>, 'value' | 'onChange' | 'children'> {
  readonly value: T;
  readonly options: readonly { readonly value: T; readonly name: string }[];
  readonly onChange: (value: T) => void;
}

/** A field of a form that takes one of some values. */
export function Select<T extends string>({ value, options, onChange, className = '', ...rest }: Props<T>) {
  const pick = (picked: string): void => {
    const option = options.find((o) => o.value === picked);
    if (option !== undefined) onChange(option.value);
  };
  return (
    <select {...rest} value={value} onChange={(event) => pick(event.target.value)} className={`field-boxed ${className}`}>
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.name}
        </option>
      ))}
    </select>
  );
}
