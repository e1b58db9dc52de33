import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { fieldKeys } from '../../grid/index.ts';
import { AddButton } from '../AddButton.tsx';
import { TextBox, IconButton } from '../../look/index.ts';

interface PartsProps {
  readonly head: readonly string[];
  readonly children: ReactNode;
  readonly onAdd?: () => void;
  readonly addWord?: string;
}

/** The parts of a field, a line each: what they are called and the cells that say what lies in them. */
export function Parts({ head, children, onAdd, addWord }: PartsProps) {
  const [name, second, third, , outcome] = head;
  return (
    <div className="mt-3">
      <div className={`grid ${third === '' ? WIDE : NARROW} gap-2 pb-1 text-xs text-ink2`} aria-hidden="true">
        <span>{name}</span>
        <span>{second}</span>
        {third !== '' && <span>{third}</span>}
        <span />
        <span>{outcome}</span>
      </div>
      <div className="space-y-1" data-fields onKeyDown={fieldKeys({ onNext: onAdd })}>
        {children}
      </div>
      {onAdd !== undefined && (
        <div className="mt-1.5">
          <AddButton onAdd={onAdd}>{addWord}</AddButton>
        </div>
      )}
    </div>
  );
}

const NARROW = 'grid-cols-[minmax(7rem,1.2fr)_minmax(5rem,1fr)_minmax(5rem,1fr)_5.5rem_minmax(7rem,1.3fr)_1.75rem]';
const WIDE = 'grid-cols-[minmax(7rem,1.2fr)_minmax(10rem,2fr)_5.5rem_minmax(7rem,1.3fr)_1.75rem]';

export function PartRow({ name, children, onRemove, wide = false }: { readonly name: string; readonly children: ReactNode; readonly onRemove?: () => void; readonly wide?: boolean }) {
  return (
    <div data-line className={`grid ${wide ? WIDE : NARROW} items-center gap-2`}>
      {children}
      {onRemove !== undefined && (
        <IconButton label={`Remove ${name}`} title="Remove" onClick={onRemove} icon={<X size={14} aria-hidden="true" />} />
      )}
    </div>
  );
}

interface CellProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly placeholder?: string;
  readonly prefix?: string;
  readonly invalid?: boolean;
  readonly readOnly?: boolean;
  readonly className?: string;
  readonly describedBy?: string;
  readonly onLeave?: () => void;
}

export function Cell({ label, value, onChange, placeholder = '', prefix, invalid = false, readOnly = false, className = '', describedBy, onLeave }: CellProps) {
  const input = (
    <TextBox
      aria-label={label}
      aria-invalid={invalid}
      value={value}
      readOnly={readOnly}
      placeholder={placeholder}
      maxLength={200}
      aria-describedby={describedBy}
      onChange={onChange}
      onBlur={onLeave}
      onKeyDown={(event) => event.key === 'Enter' && onLeave?.()}
      className={`!min-h-[28px] !py-0.5 text-sm read-only:border-transparent read-only:text-ink2 ${className}`}
    />
  );
  if (prefix === undefined) return input;
  return (
    <span className="flex items-center gap-1.5 text-xs text-ink2">
      {prefix} {input}
    </span>
  );
}

export function Validity({ name, valid, onChange }: { readonly name: string; readonly valid: boolean; readonly onChange: (valid: boolean) => void }) {
  return (
    <button
      type="button"
      aria-label={`${name} is ${valid ? 'valid' : 'invalid'}; change it`}
      onClick={() => onChange(!valid)}
      className={`h-7 rounded-field border border-rule2 text-xs font-medium ${valid ? 'bg-pine-wash text-pine' : 'bg-brick-wash text-brick'}`}
    >
      {valid ? 'valid' : 'invalid'}
    </button>
  );
}
