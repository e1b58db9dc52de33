import type { OwnField } from '@caderno/core/fields';
import type { ListProject } from '@caderno/core/listing';
import { FIRST_PRIORITIES, kindOfId, type ArtefactId, type ArtefactKind, type IdOfKind, type RequirementId } from '@caderno/core/artefacts';
import type { ReviewNumber } from '@caderno/core/reviews';
import type { Used } from '@caderno/core/shared';
import type { Standing } from '@caderno/core/coverage';
import type { ArtefactOfKind, ConditionLine, Member, QueryInputOf, ResponseOf } from '@caderno/contract';
import { keepPreviousData, queryOptions, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { call } from './client.ts';
import { SESSION_KEY } from './session.ts';
import { useKnown } from './log/useProjectLog.ts';

/** Query keys: everything of a project begins with its key, so that an event can make just that stale. */
export const keys = {
  session: SESSION_KEY,
  artefact: (project: string, id: ArtefactId) => [project, 'artefact', id] as const,
  coverage: (project: string, ...rest: unknown[]) => [project, 'coverage', ...rest] as const,
};

const membersQuery = (project: string) => queryOptions({ queryKey: [project, 'members'], queryFn: () => call('listMembers', { params: { project } }) });

/** The people of a project who see all of it: who can be named, asked and told. */
export function useMembers(project: string) {
  return useQuery({ ...membersQuery(project), select: whoSeesAll });
}

function whoSeesAll(members: readonly Member[]): Member[] {
  return members.filter((m) => m.sees === null);
}

/** All people of a project, those as well who see only some modules. */
export function useEveryMember(project: string) {
  return useQuery(membersQuery(project));
}

export function useArtefact<K extends ArtefactKind>(project: string, kind: K, id: IdOfKind[K]) {
  return useQuery(artefactQuery(project, kind, id));
}

/** Reads an artefact that is about to be opened, while the page is still being drawn for it. */
export function useReadAhead(project: string): (id: ArtefactId) => void {
  const client = useQueryClient();
  return useCallback((id: ArtefactId) => void client.prefetchQuery(artefactQuery(project, kindOfId(id), id)), [client, project]);
}

/** What hangs on what: the cells of a matrix of conditions, and cases with scenarios or suites. */
export function useMatrixCells(project: string, across: MatrixAcross) {
  return useQuery(matrixQuery(project, across));
}

/** Reads the cells of the matrix of cases while the pointer is on its way to it: in a large project they take longer than anything else of it. */
export function useReadMatrixAhead(project: string): () => void {
  const client = useQueryClient();
  return useCallback(() => void client.prefetchQuery(matrixQuery(project, 'covering')), [client, project]);
}

type MatrixAcross = QueryInputOf<'readMatrix'>['across'];

function matrixQuery(project: string, across: MatrixAcross) {
  // Hundreds of thousands of numbers are not compared with those before.
  return { queryKey: keys.coverage(project, 'matrix', across), queryFn: () => call('readMatrix', { params: { project }, query: { across } }), structuralSharing: false };
}

function artefactQuery<K extends ArtefactKind>(project: string, kind: K, id: IdOfKind[K]) {
  return {
    queryKey: keys.artefact(project, id),
    queryFn: async () => {
      const artefact = await call('readArtefact', { params: { project, id } });
      if (artefact.kind !== kind) throw new Error(`${id} is a ${artefact.kind}`);
      return artefact as ArtefactOfKind<K>;
    },
  };
}

/** The baselines of the project, the latest first. */
export function useBaselines(project: string) {
  return useQuery({ queryKey: [project, 'baselines', 'all'], queryFn: () => call('listBaselines', { params: { project } }) });
}

/** How much of what reached one is not read. */
export function useUnread(project: string) {
  return useQuery({ queryKey: [project, 'inbox', 'count'], queryFn: () => call('countInbox', { params: { project } }) });
}

/** The reviews of the project: those that go on first. */
export function useReviews(project: string) {
  return useQuery({ queryKey: [project, 'reviews', 'all'], queryFn: () => call('listReviews', { params: { project } }) });
}

/** A review with all that it asks for. */
export function useReview(project: string, review: ReviewNumber) {
  return useQuery({ queryKey: [project, 'reviews', review], queryFn: () => call('readReview', { params: { project, review } }) });
}

/** Open threads of remarks in the project. */
export function useOpenThreads(project: string) {
  return useQuery({ queryKey: [project, 'remarks', 'open'], queryFn: () => call('listOpenThreads', { params: { project } }) });
}

export function useVersions(project: string, id: ArtefactId) {
  return useQuery({ queryKey: [...keys.artefact(project, id), 'versions'], queryFn: () => call('listVersions', { params: { project, id } }) });
}

export function useVersion(project: string, id: ArtefactId, version: number | null) {
  return useQuery({
    queryKey: [project, 'version', id, version],
    queryFn: () => call('readVersion', { params: { project, id, version: version ?? 1 } }),
    enabled: version !== null,
    // A version never changes.
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useItems(project: string, query: QueryInputOf<'listItems'>, enabled = true) {
  return useQuery({
    queryKey: keys.coverage(project, 'items', query),
    queryFn: ({ signal }) => call('listItems', { params: { project }, query }, { signal }),
    placeholderData: keepPreviousData,
    enabled,
  });
}

/** A condition in a list, with the standings of its items as far as they are known. */
export interface ConditionInList extends ConditionLine {
  readonly standings: readonly Standing[];
}

/** The conditions of a requirement as a list shows them. */
export function useConditionLines(project: string, requirement: RequirementId): { readonly data: readonly ConditionInList[] | undefined } {
  const rows = useKnown(project)?.coverage?.rows;
  const lines = useQuery({
    queryKey: keys.coverage(project, 'conditions', requirement),
    queryFn: ({ signal }) => call('listConditions', { params: { project, requirement } }, { signal }),
    placeholderData: keepPreviousData,
  }).data;
  const data = useMemo(
    () =>
      lines?.map((line) => {
        const row = rows?.get(line.id);
        return { ...line, standings: row?.kind === 'condition' ? row.standings : [] };
      }),
    [lines, rows],
  );
  return { data };
}

/** A part of the design, with whole contents; null asks for none. */
export function useDesign(project: string, around: QueryInputOf<'readDesign'> | null) {
  return useQuery({
    queryKey: keys.coverage(project, 'design', around),
    queryFn: ({ signal }) => call('readDesign', { params: { project }, query: around ?? {} }, { signal }),
    placeholderData: keepPreviousData,
    enabled: around !== null,
  });
}

export function useSettings(project: string) {
  return useQuery({ queryKey: [project, 'settings'], queryFn: () => call('readSettings', { params: { project } }) });
}

const NO_FIELDS: readonly OwnField[] = [];
const NO_LIST_PROJECT: ListProject = { fields: NO_FIELDS, modules: [], priorities: FIRST_PRIORITIES };

/** What of the settings lists depend on; nothing of it until it is known. */
export function useListProject(project: string): ListProject {
  return useSettings(project).data?.settings ?? NO_LIST_PROJECT;
}

/** The fields that the project has made for itself; none until they are known. */
export function useOwnFields(project: string): readonly OwnField[] {
  return useSettings(project).data?.settings.fields ?? NO_FIELDS;
}

export function useSuspectLinks(project: string) {
  return useQuery({ queryKey: keys.coverage(project, 'suspect'), queryFn: () => call('listSuspectLinks', { params: { project } }), placeholderData: keepPreviousData });
}

/** The texts of the whole basis. */
export function useBasisTexts(project: string) {
  return useQuery({ queryKey: [project, 'list', 'texts'], queryFn: () => call('listBasisTexts', { params: { project } }), placeholderData: keepPreviousData });
}

export function useTracker(project: string) {
  return useQuery({ queryKey: [project, 'list', 'tracker'], queryFn: () => call('readTracker', { params: { project } }) });
}

/** All that uses lead to, by their keys; sorted keys make the same question. */
export function useLibrary(project: string, uses: readonly string[]) {
  return useQuery({
    queryKey: [project, 'list', 'library', uses.join(',')],
    queryFn: ({ signal }) => call('readLibrary', { params: { project }, query: { uses: uses.join(',') } }, { signal }),
    select: byKey,
    placeholderData: keepPreviousData,
    enabled: uses.length > 0,
  });
}

function byKey(library: ResponseOf<'readLibrary'>): ReadonlyMap<string, Used> {
  return new Map(library.map(({ key, used }) => [key, used]));
}

/** What uses an artefact, and what it uses. */
export function useReuse(project: string, id: ArtefactId) {
  return useQuery({ queryKey: [project, 'list', 'reuse', id], queryFn: () => call('readReuse', { params: { project, id } }), placeholderData: keepPreviousData });
}

/** Runs and cases nearly alike; asked again as long as the search goes on. */
export function useAlike(project: string) {
  return useQuery({
    queryKey: [project, 'list', 'alike'],
    queryFn: () => call('readAlike', { params: { project } }),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.search == null ? false : 400),
  });
}

/** The project's reuse as a graph. */
export function useReuseGraph(project: string) {
  return useQuery({ queryKey: [project, 'list', 'graph'], queryFn: () => call('readReuseGraph', { params: { project } }), placeholderData: keepPreviousData });
}
