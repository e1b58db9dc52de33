import type { PlainStep } from '../cases/index.ts';

/** The words of a step; a parameter is one, whatever its name holds. */
export function wordsOf({ action, expected }: Pick<PlainStep, 'action' | 'expected'>): string[] {
  return `${action} ${expected}`.toLowerCase().match(/<[^<>]+>|[\p{L}\p{N}]+/gu) ?? [];
}

/** Twice what two lists have in common, over all of both (Dice); 1 for two empty ones. */
export function likeness<T>(a: readonly T[], b: readonly T[]): number {
  if (a.length + b.length === 0) return 1;
  const left = new Map<T, number>();
  for (const word of a) left.set(word, (left.get(word) ?? 0) + 1);
  let common = 0;
  for (const word of b) {
    const count = left.get(word) ?? 0;
    if (count === 0) continue;
    common += 1;
    left.set(word, count - 1);
  }
  return (2 * common) / (a.length + b.length);
}
