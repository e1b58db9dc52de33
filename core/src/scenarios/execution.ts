import { EXECUTIONS, type Execution } from '../cases/index.ts';

/** How a project tells which of its scenarios are run by hand, and what one of them takes. */
export interface ScenarioExecution {
  /** With its `@`. */
  readonly tag: string;
  /** What a scenario with the tag is; one without it is the other. */
  readonly marks: Execution;
  /** Minutes that one instance takes, where no tag (`@5min`) says so; null: nobody has said. */
  readonly minutes: Readonly<Record<Execution, number | null>>;
}

export const FIRST_SCENARIO_EXECUTION: ScenarioExecution = { tag: '@by-hand', marks: 'byHand', minutes: { byHand: null, automated: null } };

/** Whether a scenario with these tags, those of its feature and rule too, is run by hand. Capitals make no difference. */
export function executionOf(tags: readonly string[], { tag, marks }: Pick<ScenarioExecution, 'tag' | 'marks'>): Execution {
  const has = tags.some((t) => t.toLowerCase() === tag.toLowerCase());
  return EXECUTIONS.find((e) => (e === marks) === has) ?? marks;
}

/** Minutes that one instance of a scenario takes: what its last tag such as `@5min` or `@0.5min` says, else what the project says of its kind; null: nobody has said. */
export function scenarioMinutes(tags: readonly string[], execution: ScenarioExecution): number | null {
  const said = tags.flatMap((tag) => /^@(\d{1,5}(?:\.\d{1,3})?)min$/i.exec(tag)?.[1] ?? []).at(-1);
  return said === undefined ? execution.minutes[executionOf(tags, execution)] : Number(said);
}

/** What executing scenarios takes. */
export interface ScenarioEffort {
  readonly scenarios: number;
  readonly byHand: number;
  /** Each scenario once, an outline once for each row. */
  readonly instances: number;
  /** Of those whose minutes are known. */
  readonly minutes: number;
}

/** What executing all of them takes. */
export function scenarioEffort(scenarios: Iterable<{ readonly tags: readonly string[]; readonly instances: number }>, execution: ScenarioExecution): ScenarioEffort {
  const sum = { scenarios: 0, byHand: 0, instances: 0, minutes: 0 };
  for (const { tags, instances } of scenarios) {
    sum.scenarios += 1;
    if (executionOf(tags, execution) === 'byHand') sum.byHand += 1;
    sum.instances += instances;
    sum.minutes += instances * (scenarioMinutes(tags, execution) ?? 0);
  }
  return sum;
}
