import { EMPTY_CASE, plainStep, stepId, type CaseContent, type Step } from '../cases/index.ts';
import { allSteps, columnsOf, detailOf, rowsOf } from './asCase.ts';
import type { FeatureContent } from './feature.ts';
import { meantText, type Wording } from './phraseDetail.ts';
import { outlineOf, type ScenarioStep } from './scenario.ts';

/**
 * A scenario as whoever executes it by hand reads it: a case with a step for each line, tables and texts below them, and
 * the detail of a phrase behind it. What is expected stands alone, without an action. Null where the feature has none of
 * that number.
 */
export function scenarioForReading(content: FeatureContent, number: number, wording: Wording): CaseContent | null {
  const { scenarios } = outlineOf(content);
  const scenario = scenarios.find((s) => s.kind === 'scenario' && s.number === number);
  const part = content.parts.find((p) => p.id === scenario?.part);
  if (scenario === undefined || part === undefined) return null;
  const columns = columnsOf(scenario);
  const names = new Set(columns.map((c) => c.name));
  const idAt = String;
  let expects = false;
  const steps = allSteps(scenario, scenarios).flatMap((step): Step[] => {
    if (step.kind !== 'and') expects = step.kind === 'then';
    const text = meantText(saidBy(step), names);
    const id = stepId(idAt(step.line));
    return [expects ? plainStep(id, '', text) : plainStep(id, text), ...detailOf(step, idAt, wording, columns)];
  });
  return { ...EMPTY_CASE, title: scenario.name, objective: meantText(scenario.description, names), tags: scenario.tags, steps, parameters: columns, rows: rowsOf(scenario, idAt), covers: part.covers };
}

function saidBy({ keyword, text, table, docString }: ScenarioStep): string {
  const said = keyword.trim() === '*' ? text : `${keyword.trim()} ${text}`;
  return [said, ...(table ?? []).map((row) => row.join(' | ')), ...(docString === null ? [] : [docString])].join('\n');
}
