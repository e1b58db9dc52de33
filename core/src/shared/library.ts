import type { CaseId, DataSetId, Pin, SharedId } from '../artefacts/index.ts';
import { isUse, usedBy, type CaseContent, type DataUse, type Use, type Written } from '../cases/index.ts';
import type { DataSetContent } from '../dataSets/index.ts';
import type { SharedContent } from './sharedSteps.ts';

/** Shared steps, a case that is called, or a data set, at the version a use means. */
export type Used = UsedSteps | { readonly kind: 'dataSet'; readonly id: DataSetId; readonly version: number; readonly withdrawn: boolean; readonly content: DataSetContent };

/** What a step leads to. */
export type UsedSteps =
  | { readonly kind: 'shared'; readonly id: SharedId; readonly version: number; readonly withdrawn: boolean; readonly content: SharedContent }
  | { readonly kind: 'case'; readonly id: CaseId; readonly version: number; readonly withdrawn: boolean; readonly content: CaseContent };

/** The name under which a use finds what it means: `S-4` for the latest, `S-4@2` for a pinned version, `S-4@agreed` for the one agreed last. */
export function keyOfUse(use: Use): string {
  return keyOf(usedBy(use), use.pinned);
}

/** The same for the data set of a case. */
export function keyOfData({ set, pinned }: DataUse): string {
  return keyOf(set, pinned);
}

/** The same by what is used. */
export function keyOf(id: string, pinned: Pin): string {
  return pinned === null ? id : `${id}@${pinned}`;
}

/** What has steps, and perhaps a data set: a case, or shared steps. */
export type Using = Pick<Written, 'steps'> & Partial<Pick<CaseContent, 'data'>>;

/** The keys of all that something written uses itself, each once. */
export function keysUsed({ steps, data }: Using): string[] {
  return [...new Set([...steps.filter(isUse).map(keyOfUse), ...(data == null ? [] : [keyOfData(data)])])];
}

/** The same for what is used itself. */
export function keysUsedIn(used: Used): string[] {
  return used.kind === 'dataSet' ? [] : keysUsed(used.content);
}

/** What a step leads to; undefined when it is gone. */
export function stepsUsed(library: Library, use: Use): UsedSteps | undefined {
  const used = library.get(keyOfUse(use));
  return used?.kind === 'dataSet' ? undefined : used;
}

/** What uses lead to, by {@link keyOfUse} and {@link keyOfData}. What is not in it is gone. */
export type Library = Pick<ReadonlyMap<string, Used>, 'get'>;

/** What a use with this key leads to. */
export interface LibraryEntry {
  readonly key: string;
  readonly used: Used;
}

/** Calls and shared steps may be nested this deep. */
export const DEEPEST = 100;

/**
 * A circle of uses that can be reached from some steps, as ids from the first artefact of it back to it; null when
 * there is none. `id` is the artefact the steps are to stand in, whatever the library holds of it; they may be agreed, so
 * what follows its agreed version leads back to it, too.
 */
export function findCircle(id: SharedId | CaseId, content: Pick<SharedContent, 'steps'>, library: Library): readonly (SharedId | CaseId)[] | null {
  const clear = new Set<string>();
  const path: { readonly key: string; readonly id: SharedId | CaseId }[] = [{ key: keyOf(id, 'agreed'), id }, { key: id, id }];
  const from = ({ steps }: Pick<SharedContent, 'steps'>): readonly (SharedId | CaseId)[] | null => {
    for (const use of steps.filter(isUse)) {
      // A pinned version of the artefact itself is fixed and may be used: it does not change with what is saved now.
      const key = keyOfUse(use);
      const at = path.findIndex((p) => p.key === key);
      if (at >= 0) return [...path.slice(Math.max(1, at)).map((p) => p.id), usedBy(use)];
      const used = stepsUsed(library, use);
      if (used === undefined || clear.has(key)) continue;
      path.push({ key, id: used.id });
      const circle = from(used.content);
      if (circle !== null) return circle;
      path.pop();
      clear.add(key);
    }
    return null;
  };
  return from(content);
}
