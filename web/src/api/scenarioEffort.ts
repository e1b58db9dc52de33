import { FIRST_SCENARIO_EXECUTION, scenarioEffort, type ScenarioEffort, type ScenarioExecution } from '@caderno/core/scenarios';
import { useMemo } from 'react';
import { useSummaries } from './log/index.ts';
import { useSettings } from './queries.ts';

/** How the project tells which scenarios are run by hand. */
export function useScenarioExecution(project: string): ScenarioExecution {
  return useSettings(project).data?.settings.scenarioExecution ?? FIRST_SCENARIO_EXECUTION;
}

/** What executing all scenarios of the project takes. */
export function useScenarioEffort(project: string): ScenarioEffort {
  const execution = useScenarioExecution(project);
  const features = useSummaries(project, 'feature').data;
  return useMemo(() => scenarioEffort((features ?? []).flatMap((f) => (f.state === 'withdrawn' ? [] : f.scenarios)), execution), [execution, features]);
}
