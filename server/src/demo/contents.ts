import type { CaseId, ConditionId, DataSetId, FeatureId, RequirementId, SharedId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION, EMPTY_REQUIREMENT, type QuestionContent, type QuestionSubject, type RequirementContent } from '@caderno/core/basis';
import { ALL_ROWS, newCover, newRow, parameterId, parsePastedSteps, rowId, stepId, plainStep, type CalledRows, type CarriedEvent, type CaseContent, type Parameter, type Row, type Step, type StepId } from '@caderno/core/cases';
import { EMPTY_CONDITION, anchorAt, carriedFields, coverageItems, eventId, fieldId, stateId, tableFromGrid, transitionId, type ConditionContent, type Field, type Model } from '@caderno/core/conditions';
import { withDataSet, type DataSetContent } from '@caderno/core/dataSets';
import { ownFieldId, ownQueryName, writeOwn, type OwnField, type OwnValues } from '@caderno/core/fields';
import { keyOfExpression, outlineOf, scenariosAsCases, withWrittenFor, type FeatureContent } from '@caderno/core/scenarios';
import type { DetailedPhrase, SharedContent } from '@caderno/core/shared';
import type { ValueType } from '@caderno/core/values';
import type { DemoCase, DemoCondition, DemoDataSet, DemoFeatures, DemoField, DemoQuestion, DemoRequirement, DemoSettings, DemoShared } from './documents.ts';

/** An artefact already made, as later documents name it. */
export interface Made<Id, C> {
  readonly id: Id;
  readonly version: number;
  readonly content: C;
}
export type MadeRequirement = Made<RequirementId, RequirementContent>;
export type MadeCondition = Made<ConditionId, ConditionContent>;
export type MadeCase = Made<CaseId, CaseContent>;
export type MadeDataSet = Made<DataSetId, DataSetContent>;
export type MadeShared = Made<SharedId, SharedContent>;

/** The fields of the project's own, as the settings name them. */
export function ownFields(demo: DemoSettings): OwnField[] {
  return demo.fields.map(({ choices, help, ...field }) => ({ id: ownFieldId(ownQueryName(field.name)), ...field, choices: choices.map((name) => ({ id: ownQueryName(name), name })), help, required: false, begins: null, removed: false }));
}

function ownValues({ title, own }: { readonly title: string; readonly own: Readonly<Record<string, string>> }, fields: readonly OwnField[]): OwnValues {
  return Object.fromEntries(Object.entries(own).map(([name, text]) => {
    const field = fields.find((f) => f.name === name);
    const value = field === undefined ? null : writeOwn(field, text);
    if (field === undefined || value === null) throw new Error(`'${title}' fills in fields of the project: expected one of ${fields.map((f) => f.name).join(', ')} and a value that fits, got '${name}: ${text}'`);
    return [field.id, value];
  }));
}

export function requirementContent({ title, text, type, module, risk, priority, source, own }: DemoRequirement, fields: readonly OwnField[]): RequirementContent {
  return { ...EMPTY_REQUIREMENT, title, text: text.trim(), type, module, risk, priority, source, own: ownValues({ title, own }, fields) };
}

export function conditionContent(demo: DemoCondition, requirement: (title: string) => MadeRequirement, at: string): ConditionContent {
  const model = modelOf(demo);
  const content: ConditionContent = {
    ...EMPTY_CONDITION,
    title: demo.title,
    polarity: demo.polarity,
    risk: demo.risk,
    requirements: demo.of.map(([title, words]) => {
      const target = requirement(title);
      return { id: target.id, seenVersion: target.version, anchor: words === undefined ? null : anchorOn(target.content, words) };
    }),
    model,
    depths: demo.depths,
  };
  const items = coverageItems(content);
  const leftOut = demo.leaveOut.map(([name, reason]) => {
    const item = items.find((i) => i.name === name || i.extent === name);
    if (item === undefined) throw new Error(`'${demo.title}' leaves out one of its items: expected one of ${items.map((i) => i.name).join(', ')}, got '${name}'`);
    return { id: item.key, reason, by: demo.by, at };
  });
  return { ...content, leftOut };
}

function modelOf(demo: DemoCondition): Model {
  if (demo.table !== undefined) return tableOf(demo.table);
  if (demo.states !== undefined) return statesOf(demo.states);
  if (demo.combination !== undefined) return combinationOf(demo.combination);
  return demo.fields.length === 0 ? { kind: 'plain' } : { kind: 'valueRanges', boundaries: demo.boundaries, allowInvalidTogether: false, fields: demo.fields.map(fieldOf) };
}

function tableOf(text: string): Model {
  let made = 0;
  const grid = text.trim().split('\n').map((line) => line.split('|').map((cell) => cell.trim()));
  const read = tableFromGrid(grid, { kind: 'decisionTable', conditions: [], actions: [], rules: [] }, () => `t${(made += 1)}`);
  if (!('model' in read)) throw new Error(`a table of the demo can be read: expected lines of conditions, got ${JSON.stringify(read)}`);
  return read.model;
}

function statesOf(demo: NonNullable<DemoCondition['states']>): Model {
  const names = [...new Set([demo.initial, ...demo.transitions.flatMap(([from, , , to]) => [from, to])])];
  const events = [...new Set(demo.transitions.map(([, event]) => event))];
  const stateOf = (name: string) => stateId(`s${names.indexOf(name) + 1}`);
  const eventOf = (name: string) => eventId(`e${events.indexOf(name) + 1}`);
  return {
    kind: 'stateTransitions',
    states: names.map((name) => ({ id: stateOf(name), name, initial: name === demo.initial, final: demo.final.includes(name), place: null })),
    events: events.map((name) => ({ id: eventOf(name), name })),
    transitions: demo.transitions.map(([from, event, guard, to, action], i) => ({ id: transitionId(`t${i + 1}`), from: stateOf(from), event: eventOf(event), to: stateOf(to), guard, action })),
    level: demo.level,
    invalidPairs: demo.invalidPairs,
  };
}

function combinationOf(demo: NonNullable<DemoCondition['combination']>): Model {
  return {
    kind: 'combination',
    strength: demo.strength,
    groups: [],
    seed: demo.seed,
    constraints: demo.constraints.map((text, i) => ({ id: `c${i + 1}`, text })),
    factors: demo.factors.map(([name, ...values], f) => ({
      id: fieldId(`f${f + 1}`),
      name,
      values: values.map((text, v) => {
        const [value = '', outcome = ''] = text.replace(/^!/, '').split(': ');
        return { id: `v${v + 1}`, value, aliases: [], valid: !text.startsWith('!'), base: false, outcome };
      }),
    })),
  };
}

function anchorOn(requirement: RequirementContent, words: string) {
  const start = requirement.text.indexOf(words);
  if (start < 0) throw new Error(`'${requirement.title}' holds the words a condition hangs on: expected '${words}'`);
  return anchorAt(requirement.text, start, start + words.length);
}

function fieldOf(demo: DemoField, at: number): Field {
  return {
    id: fieldId(`f${at + 1}`),
    name: demo.name,
    type: typeOf(demo),
    unit: demo.unit,
    required: demo.required,
    intervals: demo.intervals.map(([name, from, to, validity, outcome], i) => ({ id: `i${i + 1}`, name, from, to, valid: validity === 'valid', outcome })),
    choices: demo.choices.map(([value, validity, outcome, ...aliases], i) => ({ id: `v${i + 1}`, value, aliases, valid: validity === 'valid', outcome })),
    patterns: demo.patterns.map(([name, pattern, example, validity, outcome], i) => ({ id: `m${i + 1}`, name, pattern, example, valid: validity === 'valid', outcome })),
    classes: demo.classes.map(([kind, name, example, outcome], i) => ({ id: `o${i + 1}`, kind, name, example, limit: 0, valid: false, outcome })),
  };
}

function typeOf({ type, step }: DemoField): ValueType {
  switch (type) {
    case 'decimal':
      return { kind: type, step: String(step ?? '0.01') };
    case 'time':
    case 'dateTime':
      return { kind: type, stepSeconds: Number(step ?? 60) };
    default:
      return { kind: type };
  }
}

/** What a line of steps may use, by title: shared steps before cases. */
export type FindUsable = (title: string) => MadeShared | MadeCase;

/**
 * Steps, one a line. `/ Title | user = a clerk | row = usual | pinned` uses shared steps or calls a case: with these
 * values, one of its rows (or `every row`), at the version it has now (or `agreed`: the one agreed last).
 */
function stepsOf(text: string, usable: FindUsable): Step[] {
  return text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .flatMap((line, i): Step[] => (line.trim().startsWith('/ ') ? [useOfLine(line.trim().slice(2), stepId(`s${i + 1}`), usable)] : parsePastedSteps(line).map(({ action, expected }) => plainStep(stepId(`s${i + 1}`), action, expected))));
}

function useOfLine(line: string, id: StepId, usable: FindUsable): Step {
  const [title = '', ...notes] = line.split(' | ');
  const used = usable(title);
  const pinned = notes.includes('pinned') ? used.version : notes.includes('agreed') ? 'agreed' : null;
  const pairs = notes.flatMap((note) => (note.includes(' = ') ? [note.split(' = ')] : []));
  const given = pairs.flatMap(([name = '', value = '']) => (name === 'row' ? [] : [{ id: name, value }]));
  const base = { id, pinned, arguments: given } as const;
  if (!('rows' in used.content)) return { kind: 'shared', shared: used.id as SharedId, ...base };
  const rowName = pairs.find(([name]) => name === 'row')?.[1];
  const row = used.content.rows.find((r) => r.name === rowName);
  if (rowName !== undefined && row === undefined) throw new Error(`'${title}' has the row it is called with: expected '${rowName}'`);
  const rows: CalledRows = row !== undefined ? { kind: 'own', row: row.id } : notes.includes('every row') ? { kind: 'every' } : { kind: 'mine' };
  return { kind: 'call', case: used.id as CaseId, rows, ...base };
}

function parametersOf(demo: DemoCase['parameters']): Parameter[] {
  return demo.map(([name, type, value, description], i) => ({ id: parameterId(`p${i + 1}`), name, type, default: value, description }));
}

export function sharedContent(demo: DemoShared, usable: FindUsable): SharedContent {
  const parameters = parametersOf(demo.parameters);
  const phrases = demo.phrases.map(([phrase, takes], i): DetailedPhrase => ({ id: `d${i + 1}`, phrase: keyOfExpression(phrase), values: takes.map((name) => parameterNamed(demo.title, parameters, name)) }));
  return { title: demo.title, purpose: demo.purpose, steps: stepsOf(demo.steps, usable), parameters, phrases, module: demo.module, tags: [], own: {} };
}

export function dataSetContent(demo: DemoDataSet, condition: (title: string) => MadeCondition): DataSetContent {
  const parameters = parametersOf(demo.columns);
  const column = (name: string) => parameterNamed(demo.title, parameters, name);
  return {
    title: demo.title,
    purpose: demo.purpose,
    module: demo.module,
    tags: [],
    own: {},
    parameters,
    rows: demo.rows.map(({ row, for: description, mark, aside }, i) => ({ ...rowOf(row, i, parameters), description, mark, aside })),
    serves: demo.serves.map(({ condition: title, fields, outcome }) => {
      const target = condition(title);
      return { id: target.id, seenVersion: target.version, fields: Object.entries(fields).map(([field, name]) => ({ id: fieldNamed(target, field), parameter: column(name) })), outcome: outcome === null ? null : column(outcome) };
    }),
  };
}

function rowOf([name, ...cells]: readonly [string, ...string[]], at: number, parameters: readonly Parameter[]): Row {
  return newRow(rowId(`r${at + 1}`), name, Object.fromEntries(parameters.flatMap((p, column) => (cells[column] ? [[p.id, cells[column]]] : []))));
}

function parameterNamed(title: string, parameters: readonly Parameter[], name: string): Parameter['id'] {
  const found = parameters.find((p) => p.name === name);
  if (found === undefined) throw new Error(`'${title}' declares the parameters it maps: expected '${name}'`);
  return found.id;
}

/** The case with the data set it takes rows from. */
export function withDemoData(content: CaseContent, demo: DemoCase, dataSet: (title: string) => MadeDataSet): CaseContent {
  if (demo.data === undefined) return content;
  const set = dataSet(demo.data.set);
  let made = content.parameters.length;
  const taken = withDataSet(content, set, () => `p${(made += 1)}`);
  const rows = demo.data.rows?.map((name) => set.content.rows.find((r) => r.name === name)?.id);
  if (rows?.includes(undefined)) throw new Error(`'${demo.title}' runs rows that its data set has: expected '${demo.data.rows?.join("', '") ?? ''}'`);
  return rows === undefined ? taken : { ...taken, runs: { kind: 'chosen', rows: rows.filter((id) => id !== undefined) } };
}

/** The feature with the requirements that it is written for, as a whole or with some of its scenarios. */
export function withDemoRequirements(content: FeatureContent, { requirements }: DemoFeatures, requirement: (title: string) => Pick<Made<RequirementId, unknown>, 'id' | 'version'>): FeatureContent {
  const { scenarios } = outlineOf(content);
  return (requirements[content.path] ?? []).reduce((written: FeatureContent, link) => {
    const { id, version } = requirement(typeof link === 'string' ? link : link.requirement);
    const parts = typeof link === 'string' ? ('all' as const) : link.scenarios.map((name) => found(scenarios, (s) => s.name === name, `the scenario '${name}'`).part);
    return withWrittenFor(written, { id, seenVersion: version }, parts);
  }, content);
}

/** The feature with the conditions that its scenarios cover: by columns of examples, or by values as they stand in steps. */
export function withDemoCovers(id: FeatureId, content: FeatureContent, { covers }: DemoFeatures, condition: (title: string) => MadeCondition): FeatureContent {
  const cases = scenariosAsCases(id, content);
  const coversOf = (part: FeatureContent['parts'][number]) => {
    const asCase = cases.find((c) => c.part === part.id)?.content;
    if (asCase === undefined) return part.covers;
    return covers.filter((cover) => cover.scenario === asCase.title).map((cover) => {
      const target = condition(cover.condition);
      const carrier = (name: string): Parameter['id'] => parameterNamed(cover.scenario, asCase.parameters.map((p) => (p.default === name ? { ...p, name } : p)), name);
      const expects = cover.expects.map((text) => found(asCase.steps, (s) => s.kind === 'step' && s.expected === text, `a step of '${cover.scenario}': ${text}`).id);
      const fields = Object.entries(cover.fields).map(([field, name]) => ({ id: fieldNamed(target, field), parameter: carrier(name) }));
      return { ...newCover(target.id, target.version), fields, outcome: cover.outcome === null ? null : carrier(cover.outcome), expects };
    });
  };
  return { ...content, parts: content.parts.map((part) => ({ ...part, covers: coversOf(part) })) };
}

function found<T>(list: readonly T[], test: (one: T) => boolean, what: string): T {
  const one = list.find(test);
  if (one === undefined) throw new Error(`The demo names only what is there: expected ${what}`);
  return one;
}

export function caseContent(demo: DemoCase, condition: (title: string) => MadeCondition, usable: FindUsable, fields: readonly OwnField[]): CaseContent {
  const parameters = parametersOf(demo.parameters);
  const named = (name: string) => parameterNamed(demo.title, parameters, name);
  const steps = stepsOf(demo.steps, usable);
  return {
    title: demo.title,
    kind: demo.kind,
    execution: demo.execution,
    objective: demo.objective,
    areas: demo.areas,
    ideas: demo.ideas,
    preconditions: demo.preconditions,
    steps,
    parameters,
    rows: demo.rows.map((row, i) => rowOf(row, i, parameters)),
    data: null,
    runs: ALL_ROWS,
    covers: demo.covers.map((cover) => {
      const target = condition(cover.condition);
      return {
        id: target.id,
        seenVersion: target.version,
        fields: Object.entries(cover.fields).map(([field, parameter]) => ({ id: fieldNamed(target, field), parameter: named(parameter) })),
        outcome: cover.outcome === null ? null : named(cover.outcome),
        expects: cover.expects.map((number) => stepId(`s${number}`)),
        start: null,
        events: cover.events.map(([number, event, guard]) => carriedEvent(target, stepId(`s${number}`), event, guard)),
      };
    }),
    module: demo.module,
    priority: demo.priority,
    tags: demo.tags,
    estimate: demo.estimate,
    owner: demo.owner,
    attachments: [],
    defects: [],
    dependsOn: demo.dependsOn.map((title) => ({ id: usable(title).id as CaseId })),
    origin: null,
    own: ownValues(demo, fields),
  };
}

function fieldNamed(condition: MadeCondition, name: string) {
  const field = carriedFields(condition.content.model).find((f) => f.name === name);
  if (field === undefined) throw new Error(`'${condition.content.title}' has the fields a case carries: expected '${name}'`);
  return field.id;
}

/** The guard tells which transition is meant, where there are several for the event. */
function carriedEvent(condition: MadeCondition, step: StepId, name: string, guard: string): CarriedEvent {
  const { model } = condition.content;
  const event = model.kind === 'stateTransitions' ? model.events.find((e) => e.name === name) : undefined;
  if (model.kind !== 'stateTransitions' || event === undefined) throw new Error(`'${condition.content.title}' has the events a case carries: expected '${name}'`);
  const transition = guard === '' ? null : (model.transitions.find((t) => t.event === event.id && t.guard === guard)?.id ?? null);
  return { id: step, event: event.id, transition };
}

/** A question as it was when it was raised; answers come later. */
export function questionContent(demo: DemoQuestion, requirement: (title: string) => MadeRequirement, condition: (title: string) => MadeCondition, dateOf: (daysAgo: number) => string): QuestionContent {
  return {
    ...EMPTY_QUESTION,
    title: demo.title,
    text: demo.text,
    asked: demo.asked,
    about: demo.about.map((subject): QuestionSubject => {
      if ('requirement' in subject) return aboutRequirement(requirement(subject.requirement), subject.words, subject.holds);
      const target = condition(subject.condition);
      const items = subject.items.map((name) => {
        const item = coverageItems(target.content).find((i) => i.name === name);
        if (item === undefined) throw new Error(`'${demo.title}' names items of '${subject.condition}': expected '${name}'`);
        return item.key;
      });
      return { kind: 'condition', id: target.id, items, holds: true };
    }),
    observations: demo.observations.map(({ documented, done, seen, by, daysAgo }, i) => ({ id: `o${i + 1}`, documented, done, seen, by, at: dateOf(daysAgo) })),
  };
}

function aboutRequirement({ id, content }: MadeRequirement, words: string, holds: boolean): QuestionSubject {
  if (!content.text.includes(words)) throw new Error(`'${content.title}' holds the words a question is about: expected '${words}'`);
  return { kind: 'requirement', id, words, holds };
}
