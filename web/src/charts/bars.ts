import type { CurveColour } from './curve.ts';

/** A part of each bar, in one colour. */
export interface BarPart {
  readonly name: string;
  readonly colour: CurveColour;
  /** One for each bar; null: it has nothing of this. */
  readonly values: readonly (number | null)[];
}

export interface BarsShown {
  /** What is to be seen, in words: for those who do not see it. */
  readonly words: string;
  /** What each bar is called, from above. */
  readonly names: readonly string[];
  readonly parts: readonly BarPart[];
  readonly valueWords: (value: number) => string;
  /** Hears which bar was clicked, and which part of it, as their places. */
  readonly onBar?: (bar: number, part: number) => void;
}
