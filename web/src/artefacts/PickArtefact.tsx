import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react';
import { useState } from 'react';

interface Offered<Id extends string> {
  readonly id: Id;
  readonly title: string;
  /** Said in small print behind the title. */
  readonly aside?: string;
}

interface Props<Id extends string> {
  readonly label: string;
  readonly placeholder: string;
  readonly offered: readonly Offered<Id>[];
  readonly onPick: (id: Id) => void;
  readonly className?: string;
}

const MOST_OFFERED = 30;

/** Finds one artefact by words of its id and title. */
export function PickArtefact<Id extends string>({ label, placeholder, offered, onPick, className = '' }: Props<Id>) {
  const [query, setQuery] = useState('');
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const fitting = offered.filter((o) => words.every((w) => `${o.id} ${o.title}`.toLowerCase().includes(w))).slice(0, MOST_OFFERED);
  const pick = (id: Id | null): void => {
    if (id !== null) onPick(id);
    setQuery('');
  };
  return (
    <Combobox value={null} onChange={pick} immediate>
      <ComboboxInput aria-label={label} placeholder={placeholder} value={query} onChange={(e) => setQuery(e.target.value)} className={`field-boxed w-full text-sm ${className}`} autoComplete="off" />
      <ComboboxOptions anchor={{ to: 'bottom end', gap: 4 }} className="z-50 max-h-72 w-80 rounded-panel border border-rule2 bg-page py-1 text-sm empty:invisible">
        {fitting.map((o) => (
          <ComboboxOption key={o.id} value={o.id} className="cursor-pointer px-3 py-1.5 data-focus:bg-blue-wash">
            <span className="font-mono text-xs text-ink2">{o.id}</span> {o.title} <span className="text-xs text-ink2">{o.aside}</span>
          </ComboboxOption>
        ))}
      </ComboboxOptions>
    </Combobox>
  );
}
