import { DIVIDINGS, divide, handOffLines, leavesOut, lineKey, type Dividing, type HandOffLine } from '@caderno/core/handOffs';
import type { HandOffMember, HandOffPreview } from '@caderno/contract';
import { useState } from 'react';
import { z } from 'zod';

/** A hand-off that is being put together. */
export interface HandOffDraft {
  readonly name: string;
  readonly note: string;
  readonly due: string;
  readonly configurations: readonly string[];
  readonly people: readonly string[];
  readonly dividing: Dividing;
  readonly leftOut: readonly string[];
  /** Whom lines were given by hand, by their keys; '' is nobody. */
  readonly chosen: Readonly<Record<string, string>>;
}

const draftSchema: z.ZodType<HandOffDraft> = z.object({ name: z.string(), note: z.string(), due: z.string(), configurations: z.array(z.string()), people: z.array(z.string()), dividing: z.enum(DIVIDINGS), leftOut: z.array(z.string()), chosen: z.record(z.string(), z.string()) });
/** Before anything was chosen. */
export const EMPTY_DRAFT: HandOffDraft = { name: '', note: '', due: '', configurations: [], people: [], dividing: 'evenly', leftOut: [], chosen: {} };

/** The draft of one window: whoever goes to mend something finds it as it was. `place`: what it is of; `first`: what it begins with. */
export function useHandOffDraft(place: string, first: HandOffDraft): { readonly draft: HandOffDraft; readonly put: (part: Partial<HandOffDraft>) => void; readonly forget: () => void } {
  const key = `caderno hand-off ${place}`;
  const [draft, setDraft] = useState(() => kept(key) ?? first);
  return {
    draft,
    put: (part) =>
      setDraft((before) => {
        const next = { ...before, ...part };
        sessionStorage.setItem(key, JSON.stringify(next));
        return next;
      }),
    forget: () => sessionStorage.removeItem(key),
  };
}

function kept(key: string): HandOffDraft | null {
  const stored = sessionStorage.getItem(key);
  const read = draftSchema.safeParse(stored === null ? null : JSON.parse(stored));
  return read.success ? read.data : null;
}

/** Those that are handed off: not left out by hand, nor for what they are. */
export function handedMembers({ members }: HandOffPreview, { leftOut }: Pick<HandOffDraft, 'leftOut'>): readonly HandOffMember[] {
  const out = new Set(leftOut);
  return members.filter((m) => !out.has(m.of) && !m.doubts.some(leavesOut));
}

/** The lines that would be made of it, given out. */
export function draftLines(members: readonly HandOffMember[], { configurations, people, dividing, chosen }: HandOffDraft): HandOffLine[] {
  const lines = handOffLines(members, configurations);
  const persons = divide(lines, people, dividing, new Map(Object.entries(chosen)));
  return lines.map((line, i) => ({ ...line, person: persons[i] ?? '' }));
}

/** The lines somebody was chosen for that are there still. */
export function chosenLines(lines: readonly HandOffLine[], { chosen }: Pick<HandOffDraft, 'chosen'>): { readonly of: HandOffLine['of']; readonly configuration: string | null; readonly person: string }[] {
  return lines.flatMap((line) => {
    const person = chosen[lineKey(line)];
    return person === undefined ? [] : [{ of: line.of, configuration: line.configuration, person }];
  });
}
