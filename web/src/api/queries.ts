import type { ArtefactId, ArtefactKind, IdOfKind, RequirementId } from '@caderno/core/artefacts';
import type { Used } from '@caderno/core/shared';
import type { ArtefactOfKind, QueryInputOf, Summary } from '@caderno/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from './client.ts';

/** Query keys: everything of a project begins with its key, so that an event can make just that stale. */
export const keys = {
  session: ['session'] as const,
  project: (project: string) => [project, 'project'] as const,
  list: (project: string, kind: ArtefactKind, query: string) => [project, 'list', kind, query] as const,
  artefact: (project: string, id: ArtefactId) => [project, 'artefact', id] as const,
  coverage: (project: string, ...rest: unknown[]) => [project, 'coverage', ...rest] as const,
};

export function useSession() {
  return useQuery({ queryKey: keys.session, queryFn: () => call('readSession'), staleTime: 60_000 });
}

export function useProject(project: string) {
  return useQuery({ queryKey: keys.project(project), queryFn: () => call('readProject', { params: { project } }) });
}

export function useMembers(project: string) {
  return useQuery({ queryKey: [project, 'members'], queryFn: () => call('listMembers', { params: { project } }) });
}

export function useSummaries<K extends ArtefactKind>(project: string, kind: K, query = '', enabled = true) {
  return useQuery({
    queryKey: keys.list(project, kind, query),
    queryFn: async ({ signal }) => {
      const summaries = await call('listArtefacts', { params: { project }, query: { kind, query } }, { signal });
      return summaries.filter((s): s is Extract<Summary, { kind: K }> => s.kind === kind);
    },
    placeholderData: keepPreviousData,
    enabled,
  });
}

export function useArtefact<K extends ArtefactKind>(project: string, kind: K, id: IdOfKind[K]) {
  return useQuery({
    queryKey: keys.artefact(project, id),
    queryFn: async () => {
      const artefact = await call('readArtefact', { params: { project, id } });
      if (artefact.kind !== kind) throw new Error(`${id} is a ${artefact.kind}`);
      return artefact as ArtefactOfKind<K>;
    },
  });
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

export function useCoverage(project: string) {
  return useQuery({ queryKey: keys.coverage(project, 'report'), queryFn: () => call('readCoverage', { params: { project } }), placeholderData: keepPreviousData });
}

export function useItems(project: string, query: QueryInputOf<'listItems'>, enabled = true) {
  return useQuery({
    queryKey: keys.coverage(project, 'items', query),
    queryFn: ({ signal }) => call('listItems', { params: { project }, query }, { signal }),
    placeholderData: keepPreviousData,
    enabled,
  });
}

export function useCaseMarks(project: string) {
  return useQuery({ queryKey: keys.coverage(project, 'cases'), queryFn: () => call('readCaseMarks', { params: { project } }), placeholderData: keepPreviousData });
}

/** Instances and steps of the cases that use others, all opened. */
export function useCaseCounts(project: string) {
  return useQuery({ queryKey: keys.coverage(project, 'opened'), queryFn: () => call('readCaseCounts', { params: { project } }), placeholderData: keepPreviousData });
}

/** The conditions of a requirement as a list shows them. */
export function useConditionLines(project: string, requirement: RequirementId) {
  return useQuery({
    queryKey: keys.coverage(project, 'conditions', requirement),
    queryFn: ({ signal }) => call('listConditions', { params: { project, requirement } }, { signal }),
    placeholderData: keepPreviousData,
  });
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

export function useHeldUp(project: string) {
  return useQuery({ queryKey: keys.coverage(project, 'questions'), queryFn: () => call('readHeldUp', { params: { project } }), placeholderData: keepPreviousData });
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
    queryFn: async ({ signal }): Promise<ReadonlyMap<string, Used>> => new Map((await call('readLibrary', { params: { project }, query: { uses: uses.join(',') } }, { signal })).map(({ key, used }) => [key, used])),
    placeholderData: keepPreviousData,
    enabled: uses.length > 0,
    // A Map is not compared part by part.
    structuralSharing: false,
  });
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
