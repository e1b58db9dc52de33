import type { ArtefactId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { tellFailure } from '../api/index.ts';

/** What is known of a file that is being taken in, whatever it holds. */
interface FileDraft {
  readonly reading: { readonly sheet: string | null };
  readonly sheets: readonly string[];
  readonly mapping: { readonly columns: Readonly<Record<string, string>> };
}

/** A file between being chosen and being in: how it was read last, and the sheet of it that is in. */
export function useFileDraft<D extends FileDraft>(leave: (first: ArtefactId | null) => void) {
  const [draft, setDraft] = useState<D | null>(null);
  const [reading, setReading] = useState(false);
  /** A sheet is in, and the workbook has others. */
  const [done, setDone] = useState<{ readonly first: ArtefactId | null; readonly sheet: string } | null>(null);
  const sheet = draft?.reading.sheet ?? draft?.sheets[0] ?? '';
  const otherSheets = (draft?.sheets ?? []).filter((name) => name !== sheet);
  return {
    draft,
    /** Both go by what stands there when they are called: one may come late, and meanwhile somebody types. */
    setMapping: (part: Partial<D['mapping']>): void => setDraft((now) => now && { ...now, mapping: { ...now.mapping, ...part } }),
    setColumn: (name: string, target: D['mapping']['columns'][string]): void => setDraft((now) => now && { ...now, mapping: { ...now.mapping, columns: { ...now.mapping.columns, [name]: target } } }),
    reading,
    done,
    otherSheets,
    take: (answer: Promise<D>): void => {
      setReading(true);
      answer.then(setDraft, tellFailure).finally(() => setReading(false));
    },
    /** On to another sheet of the same file. */
    goOn: (): void => setDone(null),
    another: (): void => {
      setDraft(null);
      setDone(null);
    },
    finish: (first: ArtefactId | null): void => {
      if (otherSheets.length > 0) setDone({ first, sheet });
      else leave(first);
    },
  };
}
