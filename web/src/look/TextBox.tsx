import type { ComponentProps } from 'react';
import { usePrinting } from './useMedia.ts';

type Props = Omit<ComponentProps<'input'>, 'value' | 'onChange'> & { readonly value: string; readonly onChange: (value: string) => void };

/** A line to type into. On paper it has as many lines as it needs: a box would cut off what does not fit. */
export function TextBox({ className = '', onChange, ...rest }: Props) {
  const printing = usePrinting();
  const isRead = rest.type === undefined || rest.type === 'text';
  return (
    <>
      <input {...rest} onChange={(event) => onChange(event.target.value)} className={`field-boxed ${className} ${isRead ? 'print:hidden' : ''}`} />
      {printing && isRead && <span className={`hidden min-w-0 break-words print:inline-block ${className}`}>{rest.value}</span>}
    </>
  );
}

type AreaProps = Omit<ComponentProps<'textarea'>, 'value' | 'onChange'> & { readonly value: string; readonly onChange: (value: string) => void };

/** Several lines to type into. */
export function TextArea({ className = '', onChange, ...rest }: AreaProps) {
  return <textarea {...rest} onChange={(event) => onChange(event.target.value)} className={`field-boxed ${className}`} />;
}
