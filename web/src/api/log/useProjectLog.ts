import { PROJECT_EVENTS, type Session } from '@caderno/contract';
import { useQueryClient, type Query, type QueryClient, type QueryKey } from '@tanstack/react-query';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { call } from '../client.ts';
import { isSignedOut } from '../failure.ts';
import { isAsSaved, isConcerned, isUnhurried } from './concerned.ts';
import type { Foreseen } from './foreseen.ts';
import { joinStream } from './joinStream.ts';
import { ProjectLog, type KnownProject, type LogSource, type LogWatcher } from './projectLog.ts';
import type { ToTab } from './streamHub.ts';

const AGAIN_MS = 1_500;

const logs = new WeakMap<QueryClient, Map<string, ProjectLog>>();

/** The log of a project, the same for all who ask. */
export function logOf(client: QueryClient, project: string): ProjectLog {
  const ofClient = logs.get(client) ?? new Map<string, ProjectLog>();
  logs.set(client, ofClient);
  const log = ofClient.get(project) ?? new ProjectLog(sourceOf(client, project), watcherOf(client, project));
  ofClient.set(project, log);
  return log;
}

/** Nothing of any project is kept: the session is over. */
export function forgetLogs(client: QueryClient): void {
  logs.delete(client);
}

/** What is known of a project; null until it was read. */
export function useKnown(project: string): KnownProject | null {
  const log = logOf(useQueryClient(), project);
  return useSyncExternalStore(log.subscribe, log.known);
}

/** After a command: all that it changed is known, and read again where it is shown. Where the server is gone by then, the stream brings it once it is back. */
export function useRefresh(project: string): () => Promise<void> {
  const client = useQueryClient();
  return useCallback(() => logOf(client, project).refresh().catch(() => undefined), [client, project]);
}

/**
 * Carries out a command that is shown at once: as if it were done until what it did is known; taken back when it is
 * refused. `foreseen`: null where nothing can be told of it before.
 */
export function useForeseen(project: string): <T>(foreseen: Foreseen | null, command: () => Promise<T>) => Promise<T> {
  const client = useQueryClient();
  return useCallback(
    async (foreseen, command) => {
      const log = logOf(client, project);
      const settle = foreseen === null ? () => undefined : log.foresee(foreseen);
      try {
        const answer = await command();
        // Where the server is gone by now, the stream brings it once it is back.
        await log.refresh().catch(() => undefined);
        return answer;
      } finally {
        settle();
      }
    },
    [client, project],
  );
}

function sourceOf(client: QueryClient, project: string): LogSource {
  return {
    heads: (after) => call('readHeads', { params: { project }, query: { after } }),
    changes: (since) => call('readChanges', { params: { project }, query: { since } }),
    rows: (since) => call('readCoverageRows', { params: { project }, query: { since } }),
    pause: async (error) => {
      if (isSignedOut(error)) {
        void client.invalidateQueries({ queryKey: ['session'] });
        return false;
      }
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
      return true;
    },
  };
}

function watcherOf(client: QueryClient, project: string): LogWatcher {
  return {
    onChanges: async (changes, heads) => {
      const concerned = (query: Query): boolean => changes === null || (isConcerned(query, changes, heads) && !isBeingSaved(client, query));
      await client.invalidateQueries({ queryKey: [project], refetchType: 'none', predicate: (query) => concerned(query) && isUnhurried(query) });
      await client.invalidateQueries({ queryKey: [project], predicate: (query) => concerned(query) && !isUnhurried(query) });
    },
    onCoverage: () => void client.invalidateQueries({ queryKey: [project, 'coverage', 'items'] }),
  };
}

const savings = new WeakMap<QueryClient, Map<string, number>>();

function isBeingSaved(client: QueryClient, { queryKey }: Pick<Query, 'queryKey'>): boolean {
  return savings.get(client)?.has(JSON.stringify(queryKey)) ?? false;
}

/**
 * Saves an artefact. The change may be heard of before the save is answered: what the answer brings is not read once
 * more; what others made of it meanwhile is, afterwards.
 */
export async function whileSaving<T>(client: QueryClient, project: string, queryKey: QueryKey, save: () => Promise<T>): Promise<T> {
  const counts = savings.get(client) ?? new Map<string, number>();
  savings.set(client, counts);
  const name = JSON.stringify(queryKey);
  counts.set(name, (counts.get(name) ?? 0) + 1);
  try {
    return await save();
  } finally {
    const left = (counts.get(name) ?? 1) - 1;
    if (left > 0) counts.set(name, left);
    else counts.delete(name);
    const heads = logOf(client, project).known()?.heads;
    void client.invalidateQueries({ queryKey, exact: true, predicate: (query) => heads !== undefined && !isAsSaved(query, heads) });
  }
}

/** Keeps what is known of a project up to date with everyone's changes. Answers whether the server is heard. */
export function useProjectStream(project: string): { readonly connected: boolean } {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    const log = logOf(client, project);
    log.begin();
    const take = (message: ToTab): void => {
      switch (message.kind) {
        case 'connected':
          return setConnected(message.connected);
        case 'refused':
          return void client.invalidateQueries({ queryKey: ['session'] });
        case 'joined':
          void log.refresh().catch(() => undefined);
          void client.invalidateQueries({ queryKey: [project, 'remarks'] });
          void client.invalidateQueries({ queryKey: [project, 'reviews'] });
          void client.invalidateQueries({ queryKey: [project, 'baselines', 'all'] });
          void client.invalidateQueries({ queryKey: [project, 'inbox'] });
          return void log.refreshCoverage();
        case 'news':
          return takeNews(client, project, log, message);
      }
    };
    return joinStream(project, take);
  }, [client, project]);
  return { connected };
}

function takeNews(client: QueryClient, project: string, log: ProjectLog, { event, data }: Extract<ToTab, { kind: 'news' }>): void {
  const value: unknown = JSON.parse(data);
  switch (event) {
    case 'open':
      return log.takePlace(PROJECT_EVENTS.open.parse(value));
    case 'changes':
      return log.takeChanges(PROJECT_EVENTS.changes.parse(value));
    case 'coverage':
      return log.takeCoverage(PROJECT_EVENTS.coverage.parse(value));
    case 'remarked':
      // What is said of artefacts is no part of them: it is read again where it is shown.
      for (const what of [PROJECT_EVENTS.remarked.parse(value).id, 'open']) void client.invalidateQueries({ queryKey: [project, 'remarks', what] });
      return;
    case 'reviewed':
      for (const what of [PROJECT_EVENTS.reviewed.parse(value).review, 'all']) void client.invalidateQueries({ queryKey: [project, 'reviews', what] });
      return;
    case 'frozen':
      for (const what of ['baselines', 'handOffs']) void client.invalidateQueries({ queryKey: [project, what, 'all'] });
      return;
    case 'delivered': {
      const person = client.getQueryData<Session>(['session'])?.person?.id;
      if (person !== undefined && PROJECT_EVENTS.delivered.parse(value).people.includes(person)) void client.invalidateQueries({ queryKey: [project, 'inbox'] });
    }
  }
}
