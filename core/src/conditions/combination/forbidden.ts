import type { Factor } from './combination.ts';
import type { Condition } from './constraintText.ts';

/** A product of values that no row may lie in: what a constraint excludes, taken apart. Factors by place, each once. */
export interface Forbidden {
  readonly parts: readonly ForbiddenPart[];
  /** The constraint it comes from, by place. */
  readonly constraint: number;
}

export interface ForbiddenPart {
  readonly factor: number;
  /** By value whether it lies in the product. */
  readonly inside: readonly boolean[];
}

/** Above so many products a constraint is refused: it is easier said as several. */
export const MOST_FORBIDDEN = 2_000;

/** The products a constraint excludes (its negation as alternatives of requirements); null when there are too many. */
export function forbiddenBy(condition: Condition, constraint: number, factors: readonly Factor[]): Forbidden[] | null {
  const alternatives = expand(condition, false, factors);
  return alternatives?.map((product) => ({ constraint, parts: [...product].map(([factor, inside]) => ({ factor, inside })) })) ?? null;
}

type Product = ReadonlyMap<number, readonly boolean[]>;

/** The condition, or with `holds` false its negation, as alternatives, each a product of values. */
function expand(condition: Condition, holds: boolean, factors: readonly Factor[]): Product[] | null {
  switch (condition.kind) {
    case 'is':
      return [new Map([[condition.factor, (factors[condition.factor]?.values ?? []).map((_, v) => condition.values.includes(v) === holds)]])];
    case 'not':
      return expand(condition.of, !holds, factors);
    case 'and':
    case 'or': {
      const [a, b] = condition.of.map((of) => expand(of, holds, factors));
      if (a == null || b == null) return null;
      return (condition.kind === 'or') === holds ? bounded([...a, ...b]) : bounded(a.flatMap((x) => b.flatMap((y) => both(x, y) ?? [])));
    }
  }
}

function bounded(products: Product[]): Product[] | null {
  return products.length > MOST_FORBIDDEN ? null : products;
}

/** What lies in both products; null when nothing does. */
function both(a: Product, b: Product): Product | null {
  const merged = new Map(a);
  for (const [factor, inside] of b) {
    const known = merged.get(factor);
    const common = known === undefined ? inside : inside.map((is, v) => is && known[v] === true);
    if (!common.includes(true)) return null;
    merged.set(factor, common);
  }
  return merged;
}

/** Whether a row (values by place, -1 not given) surely lies in a forbidden product. */
export function liesIn(forbidden: Forbidden, row: ArrayLike<number>): boolean {
  return forbidden.parts.every(({ factor, inside }) => inside[row[factor] ?? -1] === true);
}
