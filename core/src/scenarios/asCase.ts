import { scenarioId, type FeatureId, type ScenarioId } from '../artefacts/index.ts';
import { EMPTY_CELL } from '../data/index.ts';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent, type Parameter, type Row, type Step } from '../cases/index.ts';
import type { FeatureContent, FeaturePart, PartId } from './feature.ts';
import { takenApart } from './phrase.ts';
import type { OwnKinds } from './ownKinds.ts';
import { PLAIN_WORDING, detailOfStep, type Wording } from './phraseDetail.ts';
import { outlineOf, type FeatureOutline, type ReadScenario, type ScenarioStep } from './scenario.ts';

/** A scenario taken as a case: what coverage judges. */
export interface ScenarioAsCase {
  readonly id: ScenarioId;
  readonly part: FeaturePart['id'];
  readonly content: CaseContent;
}

/**
 * The scenarios of a feature as cases, so that whatever is computed of cases is computed of them: steps with what stands
 * above them in backgrounds, a row for each row of examples, columns of examples and values in steps as parameters. A
 * step has the id of its line; a column of examples the id of its name; a value that of its line and its place in it, which own kinds of values do not move.
 * A `Then` expects, and what was done before it is its action: nobody could tell otherwise what to do. Where a phrase
 * has its detail, the shared steps stand below it and take its values; what they expect counts as in a case.
 */
export function scenariosAsCases(feature: FeatureId, content: FeatureContent, wording: Wording = PLAIN_WORDING): ScenarioAsCase[] {
  const outline = outlineOf(content);
  const asCase = casesOf(feature, content, wording, outline);
  return outline.scenarios.flatMap(({ part }) => asCase(part) ?? []);
}

/** See {@link scenariosAsCases}: each scenario when it is asked for, by its part; null: the part is none, or has no number yet. */
export function casesOf(feature: FeatureId, content: FeatureContent, wording: Wording, { scenarios }: FeatureOutline): (part: PartId) => ScenarioAsCase | null {
  const lines = content.parts.flatMap((part) => part.lines);
  const parts = new Map(content.parts.map((part) => [part.id, part]));
  const written = new Map(scenarios.map((scenario) => [scenario.part, scenario]));
  const idAt = (line: number): string => lines[line]?.id ?? `${line}`;
  const made = new Map<PartId, ScenarioAsCase>();
  return (id) => {
    const [scenario, part] = [written.get(id), parts.get(id)];
    if (scenario?.kind !== 'scenario' || part === undefined || part.number === 0) return null;
    const known = made.get(id) ?? { id: scenarioId(feature, part.number), part: id, content: asCase(scenario, scenarios, part, content, wording, idAt) };
    made.set(id, known);
    return known;
  };
}

function asCase(scenario: ReadScenario, scenarios: readonly ReadScenario[], { covers }: FeaturePart, { module, owner }: FeatureContent, wording: Wording, idAt: (line: number) => string): CaseContent {
  const steps = allSteps(scenario, scenarios);
  const columns = columnsOf(scenario);
  const parameters = [...columns, ...valuesIn(steps, idAt, wording.own)];
  const inDetail = (step: ScenarioStep): Step[] => detailOf(step, idAt, wording, columns);
  return { ...EMPTY_CASE, title: scenario.name, tags: scenario.tags, steps: stepsOf(steps, idAt, inDetail), parameters, rows: rowsOf(scenario, idAt), covers, module, owner };
}

/** The steps of a scenario with those of the backgrounds above it. */
export function allSteps(scenario: ReadScenario, scenarios: readonly ReadScenario[]): ScenarioStep[] {
  const above = scenarios.filter((s) => s.kind === 'background' && s.line < scenario.line && (s.rule === null || s.rule === scenario.rule));
  return [...above.flatMap((s) => s.steps), ...scenario.steps];
}

/** The columns of all examples of an outline, each once. */
export function columnsOf({ examples }: ReadScenario): Parameter[] {
  return [...new Set(examples.flatMap((e) => e.header))].map((name) => ({ id: parameterId(name), name, type: 'text', default: '', description: '' }));
}

/** What stands in steps as a value, with what it says there. */
function valuesIn(steps: readonly ScenarioStep[], idAt: (line: number) => string, own: OwnKinds): Parameter[] {
  return steps.flatMap(({ line, text }) =>
    takenApart(text, own).values.flatMap(({ kind, text: value, place }): Parameter[] => {
      const plain = kind === 'string' ? value.slice(1, -1) : value;
      // A placeholder has its value from the examples, wherever it stands.
      return plain.includes('<') ? [] : [{ id: parameterId(`${idAt(line)}.${place}`), name: text, type: 'text', default: plain, description: '' }];
    }),
  );
}

function stepsOf(steps: readonly ScenarioStep[], idAt: (line: number) => string, inDetail: (step: ScenarioStep) => Step[]): Step[] {
  let expects = false;
  let action = '';
  return steps.flatMap((step) => {
    const { line, kind, text } = step;
    if (kind === 'then') expects = true;
    else if (kind !== 'and') expects = false;
    if (!expects) action = text;
    return [expects ? plainStep(stepId(idAt(line)), action, text) : plainStep(stepId(idAt(line)), text), ...inDetail(step)];
  });
}

/** The phrase itself stays as a step: what links name of it holds whether it has a detail or not. */
export function detailOf({ line, text }: ScenarioStep, idAt: (line: number) => string, wording: Wording, columns: readonly Parameter[]): Step[] {
  const use = detailOfStep(text, stepId(`${idAt(line)}.detail`), wording, new Set(columns.map((c) => c.name)));
  return use === null ? [] : [use];
}

/** A value as data has it: quotation marks around the whole are Gherkin’s, and nothing between the bars is an empty text. */
function cellOf(text: string): string {
  const plain = /^"[^"]*"$/.test(text) ? text.slice(1, -1) : text;
  return plain === '' ? EMPTY_CELL : plain;
}

/** The rows of all examples of an outline, named by their examples and their first cell. */
export function rowsOf({ examples }: ReadScenario, idAt: (line: number) => string): Row[] {
  return examples.flatMap(({ name, header, rows }) => rows.map(({ line, cells }) => newRow(rowId(idAt(line)), [name, cells[0] ?? ''].filter(Boolean).join(': '), Object.fromEntries(header.map((column, i) => [parameterId(column), cellOf(cells[i] ?? '')])))));
}
