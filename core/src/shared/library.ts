import type { CaseId, SharedId } from '../artefacts/index.ts';
import { isUse, usedBy, type CaseContent, type Use } from '../cases/index.ts';
import type { SharedContent } from './sharedSteps.ts';

/** Shared steps or a case that is called, at the version a use means. */
export type Used =
  | { readonly kind: 'shared'; readonly id: SharedId; readonly version: number; readonly withdrawn: boolean; readonly content: SharedContent }
  | { readonly kind: 'case'; readonly id: CaseId; readonly version: number; readonly withdrawn: boolean; readonly content: CaseContent };

/** The name under which a use finds what it means: `S-4` for the latest, `S-4@2` for a pinned version. */
export function keyOfUse(use: Use): string {
  return use.pinned === null ? usedBy(use) : `${usedBy(use)}@${use.pinned}`;
}

/** What uses lead to, by {@link keyOfUse}. What is not in it is gone. */
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
 * there is none. `id` is the artefact the steps are to stand in, whatever the library holds of it.
 */
export function findCircle(id: SharedId | CaseId, content: Pick<SharedContent, 'steps'>, library: Library): readonly (SharedId | CaseId)[] | null {
  const clear = new Set<string>();
  const path: { readonly key: string; readonly id: SharedId | CaseId }[] = [{ key: id, id }];
  const from = ({ steps }: Pick<SharedContent, 'steps'>): readonly (SharedId | CaseId)[] | null => {
    for (const use of steps.filter(isUse)) {
      // A pinned version of the artefact itself is fixed and may be used: it does not change with what is saved now.
      const key = keyOfUse(use);
      const at = path.findIndex((p) => p.key === key);
      if (at >= 0) return [...path.slice(at).map((p) => p.id), usedBy(use)];
      const used = library.get(key);
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
