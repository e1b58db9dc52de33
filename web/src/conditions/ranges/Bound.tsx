import { isOrdered, meantValue, type ValueType } from '@caderno/core/values';
import { useId, useState } from 'react';
import { writingHabits } from '../../look/index.ts';
import { Cell } from './PartTable.tsx';

interface BoundProps {
  readonly type: ValueType;
  readonly label: string;
  readonly value: string;
  /** What stands for no bound. */
  readonly open: string;
  readonly invalid: boolean;
  readonly onChange: (value: string) => void;
}

/** A bound, written as one is used to; when one leaves it, it stands as it was understood, and says from what. */
export function Bound({ type, label, value, open, invalid, onChange }: BoundProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [from, setFrom] = useState('');
  const note = useId();
  const leave = (): void => {
    if (typed === null || !isOrdered(type)) return;
    const meant = meantValue(type, typed, writingHabits());
    setFrom(meant === typed.trim() ? '' : typed.trim());
    if (meant !== value) onChange(meant);
    setTyped(null);
  };
  return (
    <span className="min-w-0">
      <Cell
        label={label}
        value={typed ?? value}
        placeholder={open}
        invalid={invalid && typed === null}
        describedBy={note}
        onChange={(text) => {
          setTyped(text);
          // What can be read already counts at once; spaces on the way to more do not.
          if (isOrdered(type) && text === text.trim()) onChange(text);
        }}
        onLeave={leave}
        className="w-full font-mono"
      />
      <span id={note} role="status" className="block text-fine leading-4 text-ink2">
        {from !== '' && typed === null && `read from “${from}”`}
      </span>
    </span>
  );
}

/** The ways of writing that are understood. */
export function formsWords(type: ValueType): string {
  const { decimalSign, dates } = writingHabits();
  const day = dates === 'dayFirst' ? '4/3/2026' : dates === 'monthFirst' ? '3/4/2026' : '2026-03-04';
  switch (type.kind) {
    case 'date':
      return `A date as 2026-03-04${day === '2026-03-04' ? '' : ` or ${day}`}. An empty bound is open.`;
    case 'dateTime':
      return `Date and time as 2026-03-04 08:30${day === '2026-03-04' ? '' : ` or ${day} 8:30`}. An empty bound is open.`;
    case 'time':
      return 'A time as 08:30 or 08:30:15. An empty bound is open.';
    case 'decimal':
      return `A number as 1234.50${decimalSign === ',' ? ' or 1 234,50' : ' or 1,234.50'}. An empty bound is open.`;
    case 'whole':
      return 'A whole number as 99999 or 99 999. An empty bound is open.';
    case 'textLength':
      return 'The number of characters. An empty bound is open.';
    case 'textPattern':
    case 'choice':
    case 'yesNo':
      return '';
  }
}
