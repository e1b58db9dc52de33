import type { CaseId } from '../artefacts/index.ts';

/** Who uses what, by the keys of uses: kept up to date, so that a change is known to reach whom it reaches. Mutable, as the index is. */
export class CaseUses {
  readonly #users = new Map<string, Set<string>>();
  readonly #uses = new Map<string, ReadonlySet<string>>();

  /** `key`: a case, shared steps, a data set, or a pinned version of one. */
  put(key: string, uses: readonly string[]): void {
    const before = this.#uses.get(key);
    const now = new Set(uses);
    if (before === undefined && now.size === 0) return;
    for (const used of before ?? []) this.#users.get(used)?.delete(key);
    for (const used of now) this.#users.set(used, (this.#users.get(used) ?? new Set()).add(key));
    if (now.size === 0) this.#uses.delete(key);
    else this.#uses.set(key, now);
  }

  uses(key: string): boolean {
    return this.#uses.has(key);
  }

  isUsed(key: string): boolean {
    return (this.#users.get(key)?.size ?? 0) > 0;
  }

  /** The cases that use any of these, directly or through others. */
  casesUsing(keys: readonly string[]): CaseId[] {
    const found = new Set(keys);
    for (const key of found) for (const user of this.#users.get(key) ?? []) found.add(user);
    return [...found].filter((key): key is CaseId => key.startsWith('C-') && !key.includes('@') && !keys.includes(key));
  }
}
