/** A colour of the theme, by its name there. */
export type CurveColour = 'blue' | 'ink2' | 'ink3' | 'pine' | 'ochre' | 'brick' | 'plum';

export interface Curve {
  readonly name: string;
  readonly colour: CurveColour;
  /** By x; where y is null nothing is drawn. */
  readonly points: readonly { readonly x: number; readonly y: number | null }[];
  /** A line goes from point to point, a stair stays until the next; bars stand on each other. */
  readonly drawn: 'line' | 'stair' | 'bar';
  readonly dashed?: boolean;
}

export interface CurvesShown {
  /** What is to be seen, in words: for those who do not see it. */
  readonly words: string;
  readonly curves: readonly Curve[];
  readonly xName: string;
  readonly yName: string;
  readonly yMost: number;
  /** Between two numbers of the axis; without it the library finds one. */
  readonly yStep?: number | undefined;
  readonly xMost: number;
  /** A value of x at which a line stands. */
  readonly at?: number;
  /** Values of x that have a name, which stands above them. */
  readonly marks?: readonly { readonly x: number; readonly name: string }[];
  /** Values in words; as they are where nothing is said. */
  readonly xWords?: (x: number) => string;
  readonly yWords?: (y: number) => string;
  /** Hears which of the points was clicked, as its place in its curve. */
  readonly onPoint?: (place: number) => void;
}
