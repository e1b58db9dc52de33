import type { ReportCurve } from './reportDocument.ts';

/** A drawing of a share over time: moments from left to right, 100 % on top. */
export interface CurveLine {
  readonly width: number;
  readonly height: number;
  /** Runs of points without a gap, as `points` of SVG polylines. */
  readonly runs: readonly string[];
  /** Where the mark stands; null: there is none, or it is of another time. */
  readonly mark: { readonly x: number; readonly name: string } | null;
}

/** Places of a curve in a drawing of a size. A curve of one moment stands at the right. */
export function curveLine({ points, mark }: ReportCurve, width: number, height: number): CurveLine {
  const times = points.map((p) => Date.parse(p.at));
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const x = (time: number): number => (to === from ? width : round(((time - from) / (to - from)) * width));
  const runs: string[][] = [[]];
  for (const [i, { share }] of points.entries()) {
    if (share === null) runs.push([]);
    else runs.at(-1)?.push(`${x(times[i] ?? to)},${round(height - (share / 100) * height)}`);
  }
  const at = mark === null ? null : Date.parse(mark.at);
  return { width, height, runs: runs.flatMap((run) => (run.length === 0 ? [] : [run.join(' ')])), mark: mark === null || at === null || at < from || at > to ? null : { x: x(at), name: mark.name } };
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
