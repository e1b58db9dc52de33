export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Points as the path of a smooth line: a spline's points come in threes after the first. */
export function pathThrough(points: readonly Point[]): string {
  const [first, ...rest] = points;
  if (first === undefined) return '';
  const at = (p: Point | undefined): string => `${Math.round((p?.x ?? 0) * 10) / 10} ${Math.round((p?.y ?? 0) * 10) / 10}`;
  let path = `M ${at(first)}`;
  if (rest.length % 3 === 0) for (let i = 0; i < rest.length; i += 3) path += ` C ${at(rest[i])} ${at(rest[i + 1])} ${at(rest[i + 2])}`;
  else path += rest.map((p) => ` L ${at(p)}`).join('');
  return path;
}
