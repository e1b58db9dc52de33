import { EXECUTIONS, type Execution } from '@caderno/core/cases';
import { executionOf, tagTest } from '@caderno/core/scenarios';
import { useCallback, useMemo } from 'react';
import { useScenarioExecution } from '../api/index.ts';
import { useFrame, useParameters } from '../frame/index.ts';

type Tagged = { readonly tags: readonly string[] };

/** Which scenarios the address asks for, besides what the query asks of features. */
export interface AskedScenarios {
  /** A tag expression, as it is written. */
  readonly tags: string;
  /** False: it cannot be read as it is written now, and asks for nothing. */
  readonly isRead: boolean;
  /** Null: both. */
  readonly run: Execution | null;
  /** Whether fewer than all are asked for. */
  readonly filtered: boolean;
  readonly byTags: (scenario: Tagged) => boolean;
  readonly test: (scenario: Tagged) => boolean;
  readonly ask: (what: 'tags' | 'run', value: string) => void;
}

export function useAskedScenarios(): AskedScenarios {
  const [search, setParameters] = useParameters();
  const execution = useScenarioExecution(useFrame().project);
  const tags = search.get('tags') ?? '';
  const run = EXECUTIONS.find((e) => e === search.get('run')) ?? null;
  const ask = useCallback((what: 'tags' | 'run', value: string): void => setParameters({ [what]: value }), [setParameters]);
  return useMemo(() => {
    const read = tagTest(tags);
    const byTags = (scenario: Tagged): boolean => read === null || read(scenario.tags);
    const test = (scenario: Tagged): boolean => byTags(scenario) && (run === null || executionOf(scenario.tags, execution) === run);
    return { tags, isRead: read !== null, run, filtered: run !== null || (tags.trim() !== '' && read !== null), byTags, test, ask };
  }, [ask, execution, run, tags]);
}
