import type { WordingMark, WordingRule } from './rule.ts';

/** A mark the analyst decided is fine: it stays away until its sentence changes. */
export interface Dismissal {
  readonly id: string;
  readonly rule: WordingRule;
  readonly words: string;
  readonly sentence: string;
  readonly reason: string;
  readonly by: string;
  /** ISO date and time. */
  readonly at: string;
}

/** The dismissal that covers a mark; null when it stands. */
export function dismissalOf<D extends Pick<Dismissal, 'rule' | 'words' | 'sentence'>>(mark: WordingMark, dismissals: readonly D[]): D | null {
  return dismissals.find((d) => d.rule === mark.rule && d.words === mark.words && d.sentence === mark.sentence) ?? null;
}
