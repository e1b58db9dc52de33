import type { RemarkPlace } from './remarkPlace.ts';

export type RemarkId = string & { readonly __brand: 'RemarkId' };

/** The one maker of remark ids. */
export function remarkId(text: string): RemarkId {
  return text as RemarkId;
}

/** What somebody offers to stand at the place of a thread instead of what stands there. */
export interface Offer {
  readonly text: string;
  /** Who took it, when, and the version that came of it; null: nobody yet. */
  readonly taken: { readonly name: string; readonly at: string; readonly version: number } | null;
}

/** What somebody said about a design, or answered. */
export interface Remark {
  readonly id: RemarkId;
  /** The person. */
  readonly author: string;
  readonly name: string;
  /** Markdown; empty when it was taken back. */
  readonly text: string;
  /** ISO 8601. */
  readonly at: string;
  /** When it was last said otherwise; null: never. */
  readonly editedAt: string | null;
  /** What it said before, from the first on, each with when it was said otherwise; nothing once it was taken back. */
  readonly earlier: readonly { readonly text: string; readonly until: string }[];
  /** When its author, or somebody who leads, took it back; null: it stands. */
  readonly takenBackAt: string | null;
  /** Null: they offer no change. */
  readonly offer: Offer | null;
}

/** A remark at a place of an artefact, with its answers. */
export interface RemarkThread {
  /** That of its first remark. */
  readonly id: RemarkId;
  readonly place: RemarkPlace;
  /** What stood at the place when it was made; empty: nothing that is text. */
  readonly said: string;
  /** The version it was made on. */
  readonly version: number;
  /** Null: it is open. */
  readonly settled: { readonly name: string; readonly at: string } | null;
  /** In the order they were written; at least one. */
  readonly remarks: readonly Remark[];
}

/** Whether nothing is left of a thread: all that was said in it was taken back. */
export function isTakenBack({ remarks }: Pick<RemarkThread, 'remarks'>): boolean {
  return remarks.every((r) => r.takenBackAt !== null);
}

/** People named with `@` in a text: of several names that fit, the longest. */
export function mentionedIn<P extends { readonly name: string }>(text: string, people: readonly P[]): P[] {
  const byLength = people.toSorted((a, b) => b.name.length - a.name.length);
  const found = new Set<P>();
  for (const { index } of text.matchAll(/(?<![\p{L}\p{N}_.])@/gu)) {
    const behind = text.slice(index + 1).toLowerCase();
    const named = byLength.find(({ name }) => name !== '' && behind.startsWith(name.toLowerCase()) && !/^[\p{L}\p{N}_]/u.test(behind.slice(name.length)));
    if (named !== undefined) found.add(named);
  }
  return people.filter((p) => found.has(p));
}
