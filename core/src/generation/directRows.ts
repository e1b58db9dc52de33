import type { CoveringRow } from './coveringTask.ts';
import { fieldOf } from './finiteField.ts';

/**
 * Rows from a construction that is known to be smallest or close to it, where one fits; null where none does. For all
 * combinations of `strength` factors at a time, nothing forbidden.
 */
export function directRows(sizes: readonly number[], strength: number): CoveringRow[] | null {
  if (strength === 2 && sizes.every((size) => size === 2)) return binaryPairs(sizes.length);
  return strength === 2 || strength === 3 ? orthogonalRows(sizes, strength) : null;
}

/**
 * Pairs of yes/no factors in the fewest rows there are (Katona; Kleitman and Spencer): one row of zeros, and each
 * factor is 1 in its own choice of half of the other rows, so that any two choices meet and differ.
 */
function binaryPairs(factors: number): CoveringRow[] {
  let rows = 4;
  while (choose(rows - 1, Math.ceil(rows / 2)) < factors) rows += 1;
  const columns = halves(rows - 1, Math.ceil(rows / 2), factors);
  return Array.from({ length: rows }, (_, r) => columns.map((column) => (r > 0 && column.includes(r - 1) ? 1 : 0)));
}

function choose(of: number, size: number): number {
  let count = 1;
  for (let i = 0; i < size; i += 1) count = (count * (of - i)) / (i + 1);
  return Math.round(count);
}

/** The first `most` subsets of a size, in lexical order. */
function halves(of: number, size: number, most: number): number[][] {
  const found: number[][] = [];
  const extend = (prefix: readonly number[], next: number): void => {
    if (found.length === most) return;
    if (prefix.length === size) found.push([...prefix]);
    else for (let i = next; i < of; i += 1) extend([...prefix, i], i + 1);
  };
  extend([], 0);
  return found;
}

/**
 * An orthogonal array over a finite field (Bush): rows are the polynomials below degree t, columns their values at
 * every element, at infinity, and for t = 3 and even fields one more. Smaller factors take the value modulo their size.
 */
function orthogonalRows(sizes: readonly number[], t: 2 | 3): CoveringRow[] | null {
  const field = fieldOf(Math.max(...sizes));
  if (field === null) return null;
  const { order, add, multiply } = field;
  const columns = order + 1 + (t === 3 && order % 2 === 0 ? 1 : 0);
  if (sizes.length > columns || sizes.length < t) return null;
  const rows: CoveringRow[] = [];
  for (let code = 0; code < order ** t; code += 1) {
    const [c, b, a] = [code % order, Math.floor(code / order) % order, Math.floor(code / order ** 2)];
    const at = (x: number): number => add(add(multiply(a, multiply(x, x)), multiply(b, x)), c);
    const values = [...Array.from({ length: order }, (_, x) => at(x)), t === 2 ? b : a, b].slice(0, columns);
    rows.push(sizes.map((size, f) => (values[f] ?? 0) % size));
  }
  return rows;
}
