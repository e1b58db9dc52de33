import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { Check, ChevronDown } from 'lucide-react';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly { readonly value: T; readonly name: string }[];
  readonly onChange: (value: T) => void;
  readonly disabled?: boolean;
  /** Show the label before the value. */
  readonly showLabel?: boolean;
  /** While nothing is chosen (an empty value) only the label is shown: the choice is one of many beside it. */
  readonly labelWhenEmpty?: boolean;
}

/** A choice among a few: looks like a chip, opens a list. */
export function Choose<T extends string>({ label, value, options, onChange, disabled = false, showLabel = false, labelWhenEmpty = false }: Props<T>) {
  const name = options.find((o) => o.value === value)?.name ?? (value === '' ? '–' : value);
  const isBare = labelWhenEmpty && value === '';
  return (
    <Listbox value={value} onChange={onChange} disabled={disabled}>
      <ListboxButton
        aria-label={`${label}: ${name}`}
        className="inline-flex h-chip items-center gap-1 whitespace-nowrap rounded-field border border-rule2 bg-page px-2 text-xs text-ink2 hover:bg-page2 data-disabled:opacity-70"
      >
        {showLabel && !isBare && <span className="text-ink2">{label}:</span>}
        <span className="max-w-80 truncate font-medium text-ink">{isBare ? label : name}</span>
        <ChevronDown size={12} aria-hidden="true" />
      </ListboxButton>
      <ListboxOptions anchor={{ to: 'bottom start', gap: 4 }} className="z-50 max-h-80 min-w-40 max-w-[36rem] rounded-panel border border-rule2 bg-page py-1 text-sm focus:outline-none">
        {options.map((option) => (
          <ListboxOption key={option.value} value={option.value} className="flex cursor-pointer items-center gap-2 px-3 py-1.5 data-focus:bg-blue-wash">
            <Check size={13} aria-hidden="true" className={option.value === value ? 'text-blue' : 'invisible'} />
            {option.name}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
