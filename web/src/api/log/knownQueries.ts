import type { ArtefactId, ArtefactKind, ConditionId } from '@caderno/core/artefacts';
import { caseRow, markOf, reportOfRows, type CaseCounts, type CaseMark, type CoverageReport, type Standing, type StandingCounts } from '@caderno/core/coverage';
import type { OwnField } from '@caderno/core/fields';
import { leavesOf, matchesQuery, parseQuery, soughtKey, wordsToFind, type Asking, type FoundByWords } from '@caderno/core/find';
import { aroundHeads, findableOf, type AroundHead, type CaseSummary, type Summary } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNow } from '../../look/index.ts';
import { call } from '../client.ts';
import { useListProject, useOwnFields } from '../queries.ts';
import { useSession } from '../session.ts';
import type { HeadOf } from './headLists.ts';
import type { KnownProject } from './projectLog.ts';
import { useKnown } from './useProjectLog.ts';

/** What lists show of the artefacts of a kind that match a query. Words are looked for in the contents, by the server. */
export function useSummaries<K extends ArtefactKind>(project: string, kind: K, query = ''): { readonly data: readonly HeadOf<K>[] | undefined } {
  const known = useKnown(project);
  const list: readonly HeadOf<K>[] | undefined = known?.heads.lists[kind];
  const found = useFoundByWords(project, kind, query);
  const name = useSession().data?.person?.name ?? '';
  const now = useNow();
  const fields = useOwnFields(project);
  // What hangs on other artefacts and on coverage is asked only by queries: a list without one changes when its heads do.
  const around = found === undefined || found.query === '' ? null : known;
  const data = useMemo(() => {
    if (list === undefined || found === undefined) return undefined;
    return matching(list, found, around, { name, now }, fields);
  }, [around, fields, found, list, name, now]);
  return { data };
}

/** A query, and the artefacts that have what only the contents can tell. */
interface Found {
  readonly query: string;
  readonly byWords: FoundByWords;
}

/** While the words of a new query are looked for, the query before it still holds: nobody's list goes away under their hands. */
export function useFoundByWords(project: string, kind: ArtefactKind, query: string): Found | undefined {
  const fields = useOwnFields(project);
  const sought = useMemo(() => wordsToFind(parseQuery(query, fields)), [fields, query]);
  const { data } = useQuery({
    queryKey: [project, 'list', 'words', kind, query],
    queryFn: async ({ signal }) => ({
      query,
      answers: await Promise.all(sought.map(async (one) => ({ key: soughtKey(one), ...(await call('findByWords', { params: { project }, query: { kind, words: one.words, ...(one.field === null ? {} : { field: one.field }) } }, { signal })) }))),
    }),
    enabled: sought.length > 0,
  });
  const found = useMemo<Found | undefined>(() => {
    if (sought.length === 0) return { query, byWords: () => null };
    if (data === undefined) return undefined;
    const byKey = new Map(data.answers.map(({ key, ids }) => [key, new Set(ids)]));
    return { query: data.query, byWords: (one) => byKey.get(soughtKey(one)) ?? null };
  }, [data, query, sought]);
  const [before, setBefore] = useState(found);
  if (found !== undefined && found !== before) setBefore(found);
  return found ?? before;
}

function matching<H extends Summary>(list: readonly H[], { query, byWords }: Found, known: KnownProject | null, asking: Asking, fields: readonly OwnField[]): readonly H[] {
  const parsed = parseQuery(query, fields);
  if (leavesOf(parsed.root).length === 0) return list.filter((head) => head.kind === 'requirement' || head.state !== 'withdrawn');
  const around = aroundKnown(known);
  return list.filter((head) => matchesQuery(parsed, findableOf(head, around, {}), byWords, asking));
}

/** What is known around heads: those they hang on, and what coverage says. */
export function aroundKnown(known: KnownProject | null): AroundHead {
  return aroundHeads({ heads: known?.heads.byId ?? new Map(), rows: known?.coverage?.rows ?? new Map(), requirements: () => (known === null ? NO_COUNTS : countsOf(known)) });
}

const NO_COUNTS: ReadonlyMap<ArtefactId, StandingCounts> = new Map();
const counts = new WeakMap<KnownProject, ReadonlyMap<ArtefactId, StandingCounts>>();

/** The items of the counted requirements. */
function countsOf(known: KnownProject): ReadonlyMap<ArtefactId, StandingCounts> {
  const kept = counts.get(known);
  if (kept !== undefined) return kept;
  const made = new Map<ArtefactId, StandingCounts>(reportOf(known)?.requirements.map((r) => [r.id, r.counts]));
  counts.set(known, made);
  return made;
}

/** The report, with the artefacts that cannot be read: nothing of them is counted, and the numbers say so. */
export type KnownReport = CoverageReport & { readonly broken: readonly ArtefactId[] };

const reports = new WeakMap<KnownProject, KnownReport>();

function reportOf(known: KnownProject): KnownReport | undefined {
  if (known.coverage === null) return undefined;
  const kept = reports.get(known);
  if (kept !== undefined) return kept;
  const { requirement, condition, case: cases } = known.heads.lists;
  const broken = Object.values(known.heads.lists).flatMap((list) => list.filter((head: Summary) => head.broken).map((head: Summary) => head.id));
  const report = { ...reportOfRows({ requirements: requirement, conditions: condition, cases }, known.coverage.rows), broken };
  reports.set(known, report);
  return report;
}

/** The coverage of the project, made of what is known; `error`: why its rows did not come. */
export function useCoverage(project: string): { readonly data: KnownReport | undefined; readonly error: unknown } {
  const known = useKnown(project);
  return { data: known === null ? undefined : reportOf(known), error: known?.coverageError ?? null };
}

/** What coverage says of single cases and questions; null until it is known. */
export interface RowsKnown {
  mark(summary: CaseSummary): CaseMark;
  /** Instances and steps with all opened; undefined where they are those of its own rows and steps. */
  counts(id: ArtefactId): CaseCounts | undefined;
  /** How the items of a condition stand, in their order; undefined where it is not counted. */
  standings(id: ConditionId): readonly Standing[] | undefined;
  /** Items that wait for the answer. */
  heldUp(id: ArtefactId): number;
}

export function useCoverageRows(project: string): RowsKnown | null {
  const rows = useKnown(project)?.coverage?.rows;
  return useMemo(() => {
    if (rows === undefined) return null;
    return {
      mark: (summary) => markOf(summary, caseRow(rows, summary.id)),
      counts: (id) => {
        const row = rows.get(id);
        return row?.kind === 'case' ? (row.counts ?? undefined) : undefined;
      },
      standings: (id) => {
        const row = rows.get(id);
        return row?.kind === 'condition' ? row.standings : undefined;
      },
      heldUp: (id) => {
        const row = rows.get(id);
        return row?.kind === 'question' ? row.heldUp : 0;
      },
    };
  }, [rows]);
}

/** What lists show of all artefacts; undefined until it is known. */
export function useHeads(project: string): readonly Summary[] | undefined {
  const byId = useKnown(project)?.heads.byId;
  return useMemo(() => (byId === undefined ? undefined : [...byId.values()]), [byId]);
}

/** The names of the project's modules: those with a place in its order, then the others that artefacts have. */
export function useModules(project: string): readonly string[] {
  const byId = useKnown(project)?.heads.byId;
  const ordered = useListProject(project).modules;
  return useMemo(() => {
    const others = new Set([...(byId?.values() ?? [])].map((head) => head.module).filter((m) => m !== '' && !ordered.includes(m)));
    return [...ordered, ...[...others].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))];
  }, [byId, ordered]);
}

const NO_MODULES: readonly string[] = [];

/** The modules that an artefact is in: a condition is in those of its requirements. */
export function useModulesOf(project: string, id: ArtefactId): readonly string[] {
  const byId = useKnown(project)?.heads.byId;
  return useMemo(() => {
    const head = byId?.get(id);
    if (head === undefined) return NO_MODULES;
    const heads = head.kind === 'condition' ? head.requirements.flatMap((requirement) => byId?.get(requirement) ?? []) : [head];
    return heads.map((h) => h.module).filter((module) => module !== '');
  }, [byId, id]);
}

export interface Figures {
  readonly requirements: number;
  readonly conditions: number;
  readonly cases: number;
  readonly shared: number;
  readonly scenarios: number;
  readonly openQuestions: number;
  readonly suspectLinks: number;
}

/** What the tabs show. Withdrawn artefacts and headings are counted nowhere. */
export function useFigures(project: string): Figures | undefined {
  const known = useKnown(project);
  return useMemo(() => {
    if (known === null) return undefined;
    const { requirement, condition, case: cases, question, shared, dataSet, feature } = known.heads.lists;
    const count = <H extends Summary>(list: readonly H[], also: (head: H) => boolean = () => true): number => list.reduce((n, head) => (head.state !== 'withdrawn' && also(head) ? n + 1 : n), 0);
    return {
      requirements: count(requirement, (r) => r.type !== 'heading'),
      conditions: count(condition),
      cases: count(cases),
      shared: count(shared) + count(dataSet),
      scenarios: feature.reduce((sum, f) => (f.state === 'withdrawn' ? sum : sum + f.scenarios.length), 0),
      openQuestions: count(question, (q) => q.status === 'open'),
      suspectLinks: known.suspectLinks,
    };
  }, [known]);
}
