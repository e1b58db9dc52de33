/** A seeded source of chance: whole numbers from 0 below a bound. The same seed gives the same numbers everywhere. */
export type Random = (below: number) => number;

/** Mulberry32: small, fast, and even enough to choose among moves. */
export function seededRandom(seed: number): Random {
  let state = seed | 0;
  return (below) => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296) * below);
  };
}
