/** An exact decimal number: `units / 10^scale`. Decisions never pass through binary floating point. */
export interface Decimal {
  readonly units: bigint;
  readonly scale: number;
}

const DECIMAL = /^[+-]?\d+(?:\.\d+)?$/;

/** Longest text read as a number; keeps hostile input from costing quadratic time. */
export const LONGEST_NUMBER = 400;

/** Reads plain decimal notation (`-12.50`); null for anything else, exponents and groupings included. */
export function parseDecimal(text: string): Decimal | null {
  if (text.length > LONGEST_NUMBER || !DECIMAL.test(text)) return null;
  const point = text.indexOf('.');
  const scale = point < 0 ? 0 : text.length - point - 1;
  return { units: BigInt(text.replace('.', '').replace('+', '')), scale };
}

/** How often `step` goes into `value`; null when it does not go in exactly, or the step is not above zero. */
export function exactQuotient(value: Decimal, step: Decimal): bigint | null {
  if (step.units <= 0n) return null;
  const scale = Math.max(value.scale, step.scale);
  const dividend = value.units * 10n ** BigInt(scale - value.scale);
  const divisor = step.units * 10n ** BigInt(scale - step.scale);
  return dividend % divisor === 0n ? dividend / divisor : null;
}

/** `count × step` with as many decimals as the step has: 3 × 0.10 is `0.30`. */
export function formatMultiple(count: bigint, step: Decimal): string {
  const units = count * step.units;
  const sign = units < 0n ? '-' : '';
  const digits = (units < 0n ? -units : units).toString().padStart(step.scale + 1, '0');
  if (step.scale === 0) return sign + digits;
  return `${sign}${digits.slice(0, -step.scale)}.${digits.slice(-step.scale)}`;
}

/** Below zero when the first is less, above when it is more. Exact, whatever the decimals of either. */
export function compareDecimals(a: Decimal, b: Decimal): number {
  const scale = Math.max(a.scale, b.scale);
  const [x, y] = [a.units * 10n ** BigInt(scale - a.scale), b.units * 10n ** BigInt(scale - b.scale)];
  return x < y ? -1 : x > y ? 1 : 0;
}

/** All together, with as many decimals as the finest has. */
export function sumOf(decimals: readonly Decimal[]): Decimal {
  // Those of one scale are added as they are: raising each to the finest costs ten times as much.
  const unitsOf = new Map<number, bigint>();
  for (const { units, scale } of decimals) unitsOf.set(scale, (unitsOf.get(scale) ?? 0n) + units);
  const finest = Math.max(0, ...unitsOf.keys());
  return { units: [...unitsOf].reduce((sum, [scale, units]) => sum + units * 10n ** BigInt(finest - scale), 0n), scale: finest };
}

/** In plain notation, with all its decimals: `-12.50`. */
export function formatDecimal({ units, scale }: Decimal): string {
  return formatMultiple(units, { units: 1n, scale });
}
