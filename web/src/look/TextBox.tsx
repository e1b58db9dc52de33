import type { ComponentProps } from 'react';

type Props = Omit<ComponentProps<'input'>, 'value' | 'onChange'> & { readonly value: string; readonly onChange: (value: string) => void };

/** A line to type into. */
export function TextBox({ className = '', onChange, ...rest }: Props) {
  return <input {...rest} onChange={(event) => onChange(event.target.value)} className={`field-boxed ${className}`} />;
}

type AreaProps = Omit<ComponentProps<'textarea'>, 'value' | 'onChange'> & { readonly value: string; readonly onChange: (value: string) => void };

/** Several lines to type into. */
export function TextArea({ className = '', onChange, ...rest }: AreaProps) {
  return <textarea {...rest} onChange={(event) => onChange(event.target.value)} className={`field-boxed ${className}`} />;
}
