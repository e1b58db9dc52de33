import { readValue, type OrderedType } from '../values/index.ts';
import { readCell, type CellText } from '../data/index.ts';
import { isParameterName, parametersIn, renameInText } from './parameterText.ts';
import { textsOfStep, withTexts, type Step } from './step.ts';
import type { Parameter, ParameterId, ParameterType } from './parameter.ts';
import type { RowId } from './row.ts';
import type { CaseContent } from './testCase.ts';

/** What is wrong with a case's parameters and data, and where. */
export type CaseProblem =
  | { readonly code: 'parameter_undeclared'; readonly name: string }
  | { readonly code: 'parameter_unused'; readonly name: string }
  | { readonly code: 'parameter_twice'; readonly name: string }
  | { readonly code: 'parameter_name_invalid'; readonly name: string }
  | { readonly code: 'default_not_of_type'; readonly name: string; readonly type: ParameterType; readonly value: string }
  | { readonly code: 'row_unbound'; readonly row: RowId; readonly rowName: string; readonly name: string }
  | { readonly code: 'row_name_twice'; readonly rowName: string };

/** Every text of a case in which a parameter may stand, in reading order. */
export function textsOfCase(content: CaseContent): string[] {
  return [...CASE_TEXTS.map((field) => content[field]), ...content.steps.flatMap(textsOfStep)];
}

/** The texts of a case that are not its steps'. */
const CASE_TEXTS = ['objective', 'areas', 'ideas', 'preconditions'] as const;

/** A case with each of its texts replaced. */
export function withCaseTexts(content: CaseContent, change: (text: string) => string): CaseContent {
  const own = Object.fromEntries(CASE_TEXTS.map((field) => [field, change(content[field])] as const));
  return { ...content, ...own, steps: content.steps.map((s) => withTexts(s, change)) };
}

/** The names used anywhere in a case, in order of first use. */
export function parametersUsed(content: CaseContent): string[] {
  return [...new Set(textsOfCase(content).flatMap(parametersIn))];
}

/** In the order of the union above; within a code, in reading order. `surfaced`: names that are used further down, through shared steps and calls; `constants`: names that the project knows. */
export function caseProblems(content: CaseContent, surfaced: ReadonlySet<string> = new Set(), constants: ReadonlySet<string> = new Set()): CaseProblem[] {
  const used = parametersUsed(content).filter((name) => !constants.has(name) || content.parameters.some((p) => p.name === name));
  const carried = carriedParameters(content);
  return [
    ...parameterProblems(content.parameters, used, (p) => carried.has(p.id) || surfaced.has(p.name)),
    ...unboundProblems(content, used),
    ...repeated(content.rows.map((r) => r.name).filter((n) => n !== '')).map((rowName) => ({ code: 'row_name_twice', rowName }) as const),
  ];
}

/** The parameters that carry something of a condition, whatever texts say. */
function carriedParameters({ covers }: CaseContent): Set<ParameterId> {
  return new Set(covers.flatMap((c) => [...c.fields.map((f) => f.parameter), ...(c.outcome === null ? [] : [c.outcome])]));
}

/** The names of declared parameters that stand in no text, carry nothing and are used nowhere further down. */
export function unusedParameters(content: CaseContent, surfaced: ReadonlySet<string>): string[] {
  const used = new Set(parametersUsed(content));
  const carried = carriedParameters(content);
  return content.parameters.flatMap((p) => (used.has(p.name) || carried.has(p.id) || surfaced.has(p.name) ? [] : [p.name]));
}

/** What is wrong with declared parameters, given the names that texts use; `isCarried`: used other than in a text. */
export function parameterProblems(parameters: readonly Parameter[], used: readonly string[], isCarried: (parameter: Parameter) => boolean): CaseProblem[] {
  const names = parameters.map((p) => p.name);
  return [
    ...used.filter((n) => !names.includes(n)).map((name) => ({ code: 'parameter_undeclared', name }) as const),
    ...parameters.filter((p) => !used.includes(p.name) && !isCarried(p)).map((p) => ({ code: 'parameter_unused', name: p.name }) as const),
    ...repeated(names).map((name) => ({ code: 'parameter_twice', name }) as const),
    ...names.filter((n) => !isParameterName(n)).map((name) => ({ code: 'parameter_name_invalid', name }) as const),
    ...parameters.filter((p) => !fitsType(p.type, p.default)).map((p) => ({ code: 'default_not_of_type', name: p.name, type: p.type, value: p.default }) as const),
  ];
}

/** Whether a cell is a value of a parameter's type. Cells that give no text fit every type. */
export function fitsType(type: ParameterType, cell: CellText): boolean {
  const value = readCell(cell);
  if (value.kind !== 'text' || type === 'text') return true;
  if (type === 'yesNo') return /^(yes|no|true|false)$/i.test(value.text);
  if (type === 'decimal') return readValue({ kind: 'decimal', step: '1' }, value.text).kind !== 'wrongKind';
  return readValue(ORDERED_TYPE[type], value.text).kind === 'ordinal';
}

const ORDERED_TYPE: Record<Exclude<ParameterType, 'text' | 'yesNo' | 'decimal'>, OrderedType> = {
  whole: { kind: 'whole' },
  date: { kind: 'date' },
  time: { kind: 'time', stepSeconds: 1 },
  dateTime: { kind: 'dateTime', stepSeconds: 1 },
};

/** What has steps and parameters: a case, or shared steps. */
export interface Written {
  readonly steps: readonly Step[];
  readonly parameters: readonly Parameter[];
}

/** Renames a parameter in its declaration and in every step that uses it. Rows and covers hold ids and need nothing. */
export function renameInSteps<W extends Written>(content: W, id: ParameterId, name: string): W {
  const old = content.parameters.find((p) => p.id === id)?.name;
  if (old === undefined || old === name) return content;
  return { ...content, steps: content.steps.map((s) => withTexts(s, (text) => renameInText(text, old, name))), parameters: content.parameters.map((p) => (p.id === id ? { ...p, name } : p)) };
}

/** The same in all texts of a case. */
export function renameParameter(content: CaseContent, id: ParameterId, name: string): CaseContent {
  const old = content.parameters.find((p) => p.id === id)?.name;
  if (old === undefined || old === name) return content;
  return withCaseTexts({ ...content, parameters: content.parameters.map((p) => (p.id === id ? { ...p, name } : p)) }, (text) => renameInText(text, old, name));
}

/** The case without a parameter: its column of cells and its mappings go too; uses in texts stay, as undeclared. */
export function removeParameter(content: CaseContent, id: ParameterId): CaseContent {
  return {
    ...content,
    parameters: content.parameters.filter((p) => p.id !== id),
    rows: content.rows.map((r) => ({ ...r, cells: Object.fromEntries(Object.entries(r.cells).filter(([column]) => column !== id)) })),
    runs: content.runs.kind === 'filter' ? { kind: 'filter', filters: content.runs.filters.filter((f) => f.id !== id) } : content.runs,
    data: content.data === null ? null : { ...content.data, columns: content.data.columns.filter((c) => c.id !== id) },
    covers: content.covers.map((c) => ({ ...c, fields: c.fields.filter((f) => f.parameter !== id), outcome: c.outcome === id ? null : c.outcome })),
  };
}

/** A case after an edit, its links cleared of steps that the edit removed: what they expect and which events they carry. */
export function withoutLostSteps(before: CaseContent, after: CaseContent): CaseContent {
  const there = new Set(after.steps.map((s) => s.id));
  const lost = new Set(before.steps.flatMap((s) => (there.has(s.id) ? [] : [s.id])));
  if (lost.size === 0) return after;
  return { ...after, covers: after.covers.map((c) => ({ ...c, expects: c.expects.filter((id) => !lost.has(id)), events: c.events.filter((e) => !lost.has(e.id)) })) };
}

function unboundProblems(content: CaseContent, used: readonly string[]): CaseProblem[] {
  const needed = content.parameters.filter((p) => used.includes(p.name) && readCell(p.default).kind !== 'text');
  return content.rows.flatMap((row) =>
    needed
      .filter((p) => readCell(row.cells[p.id] ?? '').kind === 'notGiven')
      .map((p): CaseProblem => ({ code: 'row_unbound', row: row.id, rowName: row.name, name: p.name })),
  );
}

function repeated(names: readonly string[]): string[] {
  const seen = new Set<string>();
  return [...new Set(names.filter((n) => seen.size === seen.add(n).size))];
}
