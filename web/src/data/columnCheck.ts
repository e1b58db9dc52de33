/** What conditions know of a column that carries one of their fields. */
export interface ColumnCheck {
  /** The fields it serves, in words: `K-7 reading`. */
  readonly serves: string;
  /** Values it may be given, as they are offered. */
  readonly values: readonly string[];
  /** What is odd about a cell, in words; null: nothing. */
  readonly problem: (cell: string) => string | null;
}


