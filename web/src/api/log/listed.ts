import type { ArtefactKind } from '@caderno/core/artefacts';
import { caseRow, instancesOf, type CoverageRow } from '@caderno/core/coverage';
import { matchesQuery, parseQuery, wordsToFind } from '@caderno/core/find';
import type { Listed } from '@caderno/core/listing';
import { folderOf } from '@caderno/core/scenarios';
import { findableOf, type AroundHead, type Summary } from '@caderno/contract';
import { useMemo } from 'react';
import { useNow } from '../../look/index.ts';
import { useOwnFields } from '../queries.ts';
import { useSession } from '../session.ts';
import type { HeadOf } from './headLists.ts';
import { aroundKnown, useFoundByWords } from './knownQueries.ts';
import type { KnownProject } from './projectLog.ts';
import { useKnown } from './useProjectLog.ts';

/** An artefact in a list, with the head it was made of. */
export type ListedHead<K extends ArtefactKind = ArtefactKind> = Listed & { readonly kind: K; readonly head: HeadOf<K> };

/** The artefacts of a kind that match a query, with what a list can show, sort and group by; `total`: how many there are without it. */
export function useListed<K extends ArtefactKind>(project: string, kind: K, query: string): { readonly data: readonly ListedHead<K>[] | undefined; readonly total: number } {
  const known = useKnown(project);
  const all = useMemo(() => (known === null ? undefined : listedOf(known, kind)), [kind, known]);
  const found = useFoundByWords(project, kind, query);
  const name = useSession().data?.person?.name ?? '';
  const now = useNow();
  const fields = useOwnFields(project);
  const data = useMemo(() => {
    if (all === undefined || found === undefined) return undefined;
    const parsed = parseQuery(found.query, fields);
    const asking = { name, now };
    return all.filter((listed) => matchesQuery(parsed, listed, found.byWords, asking));
  }, [all, fields, found, name, now]);
  const total = useMemo(() => all?.filter((l) => l.state !== 'withdrawn').length ?? 0, [all]);
  return { data, total };
}

const NONE: readonly ListedHead[] = [];

/** All artefacts of a kind but those that are withdrawn; none as long as nobody wants them, as making tens of thousands takes a quarter of a second. */
export function useAllListed(project: string, kind: ArtefactKind, wanted: boolean): readonly ListedHead[] {
  const known = useKnown(project);
  return useMemo(() => (known === null || !wanted ? NONE : listedOf(known, kind).filter((l) => l.state !== 'withdrawn')), [kind, known, wanted]);
}

/** How many artefacts of a kind match a query; null while that is not known, as with words that only the contents have. */
export function useMatchCount(project: string, kind: ArtefactKind, query: string): number | null {
  const known = useKnown(project);
  const name = useSession().data?.person?.name ?? '';
  const now = useNow();
  const fields = useOwnFields(project);
  return useMemo(() => {
    const parsed = parseQuery(query, fields);
    if (known === null || wordsToFind(parsed).length > 0) return null;
    const asking = { name, now };
    return listedOf(known, kind).reduce((n, listed) => (matchesQuery(parsed, listed, () => null, asking) ? n + 1 : n), 0);
  }, [fields, kind, known, name, now, query]);
}

const kept = new WeakMap<KnownProject, Map<ArtefactKind, readonly ListedHead[]>>();

/** Made once of what is known, however many queries are held against it. */
function listedOf<K extends ArtefactKind>(known: KnownProject, kind: K): readonly ListedHead<K>[] {
  const byKind = kept.get(known) ?? new Map<ArtefactKind, readonly ListedHead[]>();
  kept.set(known, byKind);
  const list = byKind.get(kind) ?? madeOf(known, known.heads.lists[kind]);
  byKind.set(kind, list);
  return list as readonly ListedHead<K>[];
}

interface Made {
  readonly of: readonly unknown[];
  readonly listed: ListedHead;
}

/** Heads and rows never change: what is listed of a head is made again only when something it was made of is another. */
const made = new WeakMap<Summary, Made>();

/** What lists show of some heads. */
export function madeOf(known: KnownProject, heads: readonly Summary[]): ListedHead[] {
  const around = aroundKnown(known);
  const rows = known.coverage?.rows ?? NO_ROWS;
  return heads.map((head) => {
    const of = madeFrom(head, around, rows);
    const before = made.get(head);
    if (before !== undefined && before.of.length === of.length && of.every((part, i) => part === before.of[i])) return before.listed;
    const listed = listedHead(head, around, rows);
    made.set(head, { of, listed });
    return listed;
  });
}

type Rows = ReadonlyMap<string, CoverageRow>;
const NO_ROWS: Rows = new Map();

/** Everything besides the head itself that what is listed of it depends on. */
function madeFrom(head: Summary, around: AroundHead, rows: Rows): readonly unknown[] {
  switch (head.kind) {
    case 'requirement':
      return [around.standings(head.id)];
    case 'condition':
      return [rows.get(head.id), ...head.requirements.map((id) => around.requirement(id))];
    case 'case':
      return [rows.get(head.id), ...head.covers.map((id) => around.condition(id))];
    case 'question':
      return [rows.get(head.id)];
    case 'shared':
    case 'dataSet':
    case 'feature':
    case 'suite':
      return [];
  }
}

function listedHead(head: Summary, around: AroundHead, rows: Rows): ListedHead {
  return findableOf(head, around, { title: head.title, head, ...ownOf(head, rows) }) as ListedHead;
}

/** What lists show of some kinds only. */
function ownOf(head: Summary, rows: Rows): Pick<Listed, 'instances' | 'folder' | 'heldUp'> {
  switch (head.kind) {
    case 'case':
      return { instances: instancesOf(head, caseRow(rows, head.id)) };
    case 'feature':
      return { folder: folderOf(head.path), instances: head.scenarios.reduce((sum, s) => sum + s.instances, 0) };
    case 'question': {
      const row = rows.get(head.id);
      return { heldUp: row?.kind === 'question' ? row.heldUp : 0 };
    }
    case 'requirement':
    case 'condition':
    case 'shared':
    case 'dataSet':
    case 'suite':
      return {};
  }
}
