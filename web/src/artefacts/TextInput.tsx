import { useId } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly readOnly: boolean;
  readonly onChange: (value: string) => void;
  readonly suggestions?: readonly string[];
  readonly placeholder?: string;
  readonly className?: string;
  readonly inputMode?: 'numeric' | 'text';
  /** The value says what it is: the label is only its name. */
  readonly bare?: boolean;
}

/** A short text beside its label, as chips are: “Module: Tariff bands”. */
export function TextInput({ label, value, readOnly, onChange, suggestions, placeholder = '–', className = '', inputMode = 'text', bare = false }: Props) {
  const list = useId();
  return (
    <label className={`inline-flex h-chip items-center gap-1 rounded-field border border-rule2 bg-page pl-2 text-xs text-ink2 focus-within:border-blue ${className}`}>
      {!bare && `${label}:`}
      <input
        aria-label={bare ? label : undefined}
        title={bare ? label : undefined}
        value={value}
        readOnly={readOnly}
        maxLength={200}
        placeholder={placeholder}
        inputMode={inputMode}
        list={suggestions === undefined ? undefined : list}
        onChange={(event) => onChange(event.target.value)}
        // Spaces around that nobody sees would make it another.
        onBlur={() => {
          if (!readOnly && value !== value.trim()) onChange(value.trim());
        }}
        className="h-full min-w-8 max-w-52 rounded-[4px] bg-transparent pr-2 font-medium text-ink [field-sizing:content] focus:outline-none"
      />
      {suggestions !== undefined && (
        <datalist id={list}>
          {suggestions.map((s) => (
            <option key={s} value={s} />
          ))}
        </datalist>
      )}
    </label>
  );
}
