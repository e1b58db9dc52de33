/** A finite field; its elements are the numbers below its order, 0 and 1 being zero and one. */
export interface FiniteField {
  readonly order: number;
  readonly add: (a: number, b: number) => number;
  readonly multiply: (a: number, b: number) => number;
}

/** Primes, and the prime powers that factors of a test have, with their irreducible polynomial: x² = …, lowest first. */
const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23];
const POWERS: Readonly<Record<number, { readonly prime: number; readonly top: readonly number[] }>> = {
  4: { prime: 2, top: [1, 1] },
  8: { prime: 2, top: [1, 1, 0] },
  9: { prime: 3, top: [2, 0] },
  16: { prime: 2, top: [1, 1, 0, 0] },
  25: { prime: 5, top: [3, 0] },
};

/** The field of an order; null when none is made for it. */
export function fieldOf(order: number): FiniteField | null {
  if (PRIMES.includes(order)) return { order, add: (a, b) => (a + b) % order, multiply: (a, b) => (a * b) % order };
  const power = POWERS[order];
  return power === undefined ? null : powerField(order, power.prime, power.top);
}

/** Elements are polynomials, their coefficients the digits to the base of the prime. */
function powerField(order: number, prime: number, top: readonly number[]): FiniteField {
  const degree = top.length;
  const digits = (n: number): number[] => Array.from({ length: degree }, (_, i) => Math.floor(n / prime ** i) % prime);
  const number = (coefficients: readonly number[]): number => coefficients.reduce((sum, c, i) => sum + c * prime ** i, 0);
  const multiply = (a: number, b: number): number => {
    const [left, right] = [digits(a), digits(b)];
    const product = new Array<number>(2 * degree - 1).fill(0);
    left.forEach((x, i) => right.forEach((y, j) => (product[i + j] = ((product[i + j] ?? 0) + x * y) % prime)));
    for (let i = product.length - 1; i >= degree; i -= 1) {
      top.forEach((t, j) => (product[i - degree + j] = ((product[i - degree + j] ?? 0) + (product[i] ?? 0) * t) % prime));
    }
    return number(product.slice(0, degree));
  };
  return { order, multiply, add: (a, b) => number(digits(a).map((x, i) => (x + (digits(b)[i] ?? 0)) % prime)) };
}
