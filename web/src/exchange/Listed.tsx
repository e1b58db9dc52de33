import { useState } from 'react';
import { TextButton, locale } from '../look/index.ts';

interface Props {
  readonly title: string;
  /** `mark`: what stands before the words, in the font of ids and paths. */
  readonly list: readonly { readonly mark: string; readonly words: string }[];
  /** How many there are; the list may be the first of them. */
  readonly total: number;
  readonly note?: string;
  /** Whether marks are paths, which are long. */
  readonly paths?: boolean;
}

const FEW = 12;

/** A part of what an import would do: the first few, and more on demand. */
export function Listed({ title, list, total, note, paths = false }: Props) {
  const [all, setAll] = useState(false);
  if (list.length === 0) return null;
  const shown = all ? list : list.slice(0, FEW);
  return (
    <section className="mt-4" aria-label={title}>
      <h4 className="flex items-baseline gap-3 text-sm font-semibold">
        {title} <span className="text-xs font-normal text-ink2">{[total.toLocaleString(locale()), note].filter(Boolean).join(' · ')}</span>
      </h4>
      <ul className="text-sm">
        {shown.map(({ mark, words }) => (
          <li key={mark} className="flex gap-3 border-b border-rule py-1">
            <span className={`shrink-0 font-mono text-xs leading-5 text-ink2 ${paths ? 'w-96 break-all' : 'w-12'}`}>{mark}</span>
            <span className="min-w-0">{words}</span>
          </li>
        ))}
      </ul>
      {!all && total > shown.length && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          {total > list.length ? `the first ${list.length} of ${total.toLocaleString(locale())}` : `all ${total}`}
        </TextButton>
      )}
    </section>
  );
}
