import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { caseRow, markOf, reportOfRows, type CaseCounts, type CaseMark, type CoverageReport } from '@caderno/core/coverage';
import { matchesQuery, parseQuery, wordsToFind, type Findable } from '@caderno/core/find';
import type { CaseSummary, Summary } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call } from '../client.ts';
import type { HeadOf } from './headLists.ts';
import type { KnownProject } from './projectLog.ts';
import { useKnown } from './useProjectLog.ts';

/** What lists show of the artefacts of a kind that match a query. Words are looked for in the contents, by the server. */
export function useSummaries<K extends ArtefactKind>(project: string, kind: K, query = ''): { readonly data: readonly HeadOf<K>[] | undefined } {
  const list: readonly HeadOf<K>[] | undefined = useKnown(project)?.heads.lists[kind];
  const found = useFoundByWords(project, kind, query);
  const data = useMemo(() => (list === undefined || found === undefined ? undefined : matching(list, found)), [found, list]);
  return { data };
}

/** A query, and the artefacts that have its words in any of their texts. */
interface Found {
  readonly query: string;
  readonly byWords: ReadonlyMap<string, ReadonlySet<ArtefactId>>;
}

/** While the words of a new query are looked for, the query before it still holds: nobody's list goes away under their hands. */
function useFoundByWords(project: string, kind: ArtefactKind, query: string): Found | undefined {
  const words = useMemo(() => wordsToFind(parseQuery(query)), [query]);
  const { data } = useQuery({
    queryKey: [project, 'list', 'words', kind, query],
    queryFn: async ({ signal }) => ({ query, words: await Promise.all(words.map(async (w) => ({ words: w, ...(await call('findByWords', { params: { project }, query: { kind, words: w } }, { signal })) }))) }),
    enabled: words.length > 0,
  });
  const found = useMemo<Found | undefined>(() => {
    if (words.length === 0) return { query, byWords: new Map() };
    return data && { query: data.query, byWords: new Map(data.words.map(({ words: w, ids }) => [w, new Set(ids)])) };
  }, [data, query, words]);
  const [before, setBefore] = useState(found);
  if (found !== undefined && found !== before) setBefore(found);
  return found ?? before;
}

function matching<H extends Summary>(list: readonly H[], { query, byWords }: Found): readonly H[] {
  const parsed = parseQuery(query);
  return list.filter((head) => matchesQuery(parsed, findable(head), (words) => byWords.get(words) ?? null));
}

/** What a query looks at: who is asked counts as a question's owner, a condition without a risk of its own has none. */
function findable(head: Summary): Findable {
  if (head.kind === 'question') return { ...head, owner: head.asked };
  return head.kind === 'condition' ? { ...head, risk: head.risk ?? '' } : head;
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
      heldUp: (id) => {
        const row = rows.get(id);
        return row?.kind === 'question' ? row.heldUp : 0;
      },
    };
  }, [rows]);
}

/** The names of the project's modules, in their order. */
export function useModules(project: string): readonly string[] {
  const byId = useKnown(project)?.heads.byId;
  return useMemo(() => [...new Set([...(byId?.values() ?? [])].map((head) => head.module))].filter((m) => m !== '').sort((a, b) => a.localeCompare(b, 'en')), [byId]);
}

export interface Figures {
  readonly requirements: number;
  readonly conditions: number;
  readonly cases: number;
  readonly shared: number;
  readonly openQuestions: number;
  readonly suspectLinks: number;
}

/** What the tabs show. Withdrawn artefacts and headings are counted nowhere. */
export function useFigures(project: string): Figures | undefined {
  const known = useKnown(project);
  return useMemo(() => {
    if (known === null) return undefined;
    const { requirement, condition, case: cases, question, shared, dataSet } = known.heads.lists;
    const count = <H extends Summary>(list: readonly H[], also: (head: H) => boolean = () => true): number => list.reduce((n, head) => (head.state !== 'withdrawn' && also(head) ? n + 1 : n), 0);
    return {
      requirements: count(requirement, (r) => r.type !== 'heading'),
      conditions: count(condition),
      cases: count(cases),
      shared: count(shared) + count(dataSet),
      openQuestions: count(question, (q) => q.status === 'open'),
      suspectLinks: known.suspectLinks,
    };
  }, [known]);
}
