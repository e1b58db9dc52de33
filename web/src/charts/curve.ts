/** A colour of the theme, by its name there. */
export type CurveColour = 'blue' | 'ink3' | 'pine' | 'ochre';

export interface Curve {
  readonly name: string;
  readonly colour: CurveColour;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** A line goes from point to point, a stair stays until the next. */
  readonly drawn: 'line' | 'stair';
  readonly dashed?: boolean;
}

export interface CurvesShown {
  /** What is to be seen, in words: for those who do not see it. */
  readonly words: string;
  readonly curves: readonly Curve[];
  readonly xName: string;
  readonly yName: string;
  readonly yMost: number;
  readonly xMost: number;
  /** A value of x at which a line stands. */
  readonly at?: number;
}
