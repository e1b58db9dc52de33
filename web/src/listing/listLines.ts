import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { grouped, sorted, type ListColumn, type ListProject, type Sorting } from '@caderno/core/listing';
import type { ListedHead } from '../api/index.ts';

/** A line of a list: the head of a group, or an artefact. */
export type ListLine<K extends ArtefactKind> =
  | { readonly kind: 'group'; readonly value: string | null; readonly members: readonly ListedHead<K>[] }
  | { readonly kind: 'artefact'; readonly listed: ListedHead<K>; readonly key: string };

/** The lines of a list: sorted, and in groups where it is grouped. `now` in milliseconds since 1970. */
export function listLines<K extends ArtefactKind>(list: readonly ListedHead<K>[], group: ListColumn | null, sort: Sorting | null, now: number, project: ListProject): ListLine<K>[] {
  const inOrder = sort === null ? list : sorted(list, sort, project);
  if (group === null) return inOrder.map((listed) => ({ kind: 'artefact', listed, key: listed.id }));
  return grouped(inOrder, group, now, project).flatMap(({ value, members }): ListLine<K>[] => [
    { kind: 'group', value, members },
    // What has several values stands in several groups.
    ...members.map((listed): ListLine<K> => ({ kind: 'artefact', listed, key: `${value ?? ''} ${listed.id}` })),
  ]);
}

/** The artefacts of lines, each once, in their order. */
export function idsOf<K extends ArtefactKind>(lines: readonly ListLine<K>[]): ArtefactId[] {
  return [...new Set(lines.flatMap((line) => (line.kind === 'artefact' ? [line.listed.id] : [])))];
}
