import type { CaseId } from '../artefacts/index.ts';
import { freeName } from './freeName.ts';
import { isUse, stepId, type CalledRows, type Step, type StepId } from './step.ts';
import { parameterId, type Parameter, type ParameterId } from './parameter.ts';
import { newRow, rowId, type Row, type RowId } from './row.ts';
import { withRowsRunning } from './rowChoice.ts';
import type { CaseContent, Cover } from './testCase.ts';

/** Whether the steps of the one that goes are dropped, as those of the other say the same, or stand after them. */
export const MERGED_STEPS = ['kept', 'both'] as const;
export type MergedSteps = (typeof MERGED_STEPS)[number];

/** A case that is merged with another. */
export interface Merging {
  readonly id: CaseId;
  readonly content: CaseContent;
}

export interface MergedCase {
  readonly content: CaseContent;
  /** Where the rows of the one that goes are now: what called them calls these. */
  readonly rows: ReadonlyMap<RowId, RowId>;
}

/**
 * Two cases made into one: parameters of equal name are one, rows of both stand in it (equal ones once), and what
 * either covers, tags, attachments, defects and dependencies on others. A case without rows brings the one instance it was, as a
 * row, and values that stood as a default stay. In a field of the project's own the kept one's value counts. Where both cover a condition, the links of the one that is kept count.
 * `newId` makes ids for what would stand twice.
 */
export function mergeCases({ id: keptId, content: kept }: Merging, { id: goneId, content: gone }: Merging, steps: MergedSteps, newId: () => string): MergedCase {
  const parameters = mergedParameters(kept, gone, newId);
  const rows = mergedRows(kept, gone, parameters.map, newId);
  const stepIds = new Set(kept.steps.map((s) => s.id));
  const newSteps = steps === 'both' ? gone.steps.map((s): Step => (stepIds.has(s.id) ? { ...s, id: stepId(newId()) } : s)) : [];
  const stepOf = new Map(newSteps.map((s, i) => [gone.steps[i]?.id, s.id]));
  const covers = gone.covers.filter((c) => !kept.covers.some((k) => k.id === c.id)).map((c) => moved(c, parameters.map, stepOf));
  return {
    rows: rows.map,
    content: {
      ...kept,
      steps: [...kept.steps, ...newSteps],
      parameters: parameters.all,
      rows: rows.all,
      runs: withRowsRunning(kept.runs, rows.all.filter((row) => !kept.rows.includes(row)).map((row) => row.id)),
      covers: [...kept.covers, ...covers],
      tags: [...new Set([...kept.tags, ...gone.tags])],
      own: { ...gone.own, ...kept.own },
      attachments: byId(kept.attachments, gone.attachments),
      defects: byId(kept.defects, gone.defects),
      // On each other they depend no longer.
      dependsOn: byId(kept.dependsOn, gone.dependsOn).filter((d) => d.id !== keptId && d.id !== goneId),
    },
  };
}

/** Calls of the case that goes, led to the one that is kept. */
export function withCallsMoved(steps: readonly Step[], from: CaseId, to: CaseId, rows: ReadonlyMap<RowId, RowId>): Step[] {
  return steps.map((step) => {
    if (step.kind !== 'call' || step.case !== from || step.pinned !== null) return step;
    return { ...step, case: to, rows: calledRowsMoved(step.rows, rows) };
  });
}

function calledRowsMoved(called: CalledRows, to: ReadonlyMap<RowId, RowId>): CalledRows {
  const moved = (row: RowId): RowId => to.get(row) ?? row;
  switch (called.kind) {
    case 'own':
      return { kind: 'own', row: moved(called.row) };
    case 'chosen':
      return { kind: 'chosen', rows: called.rows.map(moved) };
    case 'every':
    case 'mine':
      return called;
  }
}

function mergedParameters(kept: CaseContent, gone: CaseContent, newId: () => string): { all: Parameter[]; map: Map<ParameterId, ParameterId> } {
  const taken = new Set(kept.parameters.map((p) => p.id));
  const map = new Map<ParameterId, ParameterId>();
  const all = [...kept.parameters];
  for (const parameter of gone.parameters) {
    const same = kept.parameters.find((p) => p.name === parameter.name);
    const id = same?.id ?? (taken.has(parameter.id) ? parameterId(newId()) : parameter.id);
    map.set(parameter.id, id);
    if (same === undefined) all.push({ ...parameter, id });
  }
  return { all, map };
}

function mergedRows(kept: CaseContent, gone: CaseContent, parameters: ReadonlyMap<ParameterId, ParameterId>, newId: () => string): { all: Row[]; map: Map<RowId, RowId> } {
  const map = new Map<RowId, RowId>();
  const defaults = otherDefaults(kept, gone);
  if (kept.rows.length === 0 && gone.rows.length === 0 && defaults.size === 0) return { all: [], map };
  const all = kept.rows.length > 0 || kept.data !== null ? [...kept.rows] : [oneInstance(kept, newId)];
  const known = new Map(all.map((row) => [cellsKey(row), row.id]));
  const names = new Set(all.map((row) => row.name));
  const ids = new Set(all.map((row) => row.id));
  for (const row of gone.rows.length > 0 ? gone.rows : [oneInstance(gone, newId)]) {
    // What a cell leaves to a default keeps that value where the other case has another default.
    const own = { ...Object.fromEntries(defaults), ...Object.fromEntries(Object.entries(row.cells).filter(([, cell]) => cell !== '')) };
    const cells = Object.fromEntries(Object.entries(own).map(([column, cell]) => [parameters.get(column as ParameterId) ?? column, cell]));
    const same = known.get(cellsKey({ cells }));
    const id = same ?? (ids.has(row.id) ? rowId(newId()) : row.id);
    map.set(row.id, id);
    if (same !== undefined) continue;
    const name = row.name === '' ? '' : freeName(row.name, names);
    names.add(name);
    ids.add(id);
    known.set(cellsKey({ cells }), id);
    all.push({ ...row, id, name, cells });
  }
  return { all, map };
}

/** The defaults of the one that goes that its parameters would lose, by their ids: one of the same name has another. */
function otherDefaults(kept: CaseContent, gone: CaseContent): Map<ParameterId, string> {
  return new Map(gone.parameters.flatMap((p) => {
    const same = kept.parameters.find((k) => k.name === p.name);
    return same === undefined || p.default === '' || same.default === p.default ? [] : [[p.id, p.default] as const];
  }));
}

/** What a case without rows was: its defaults. */
function oneInstance(content: CaseContent, newId: () => string): Row {
  const cells = content.parameters.filter((p) => p.default !== '').map((p) => [p.id, p.default] as const);
  return newRow(rowId(newId()), content.title.slice(0, 200), Object.fromEntries(cells));
}

function cellsKey({ cells }: Pick<Row, 'cells'>): string {
  return JSON.stringify(Object.entries(cells).filter(([, cell]) => cell !== '').sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A link with the parameters and steps it speaks of as they are called now; steps that are dropped show nothing. */
function moved(cover: Cover, parameters: ReadonlyMap<ParameterId, ParameterId>, steps: ReadonlyMap<StepId | undefined, StepId>): Cover {
  const step = (id: StepId): StepId[] => [steps.get(id) ?? []].flat();
  return {
    ...cover,
    fields: cover.fields.map((f) => ({ ...f, parameter: parameters.get(f.parameter) ?? f.parameter })),
    outcome: cover.outcome === null ? null : (parameters.get(cover.outcome) ?? cover.outcome),
    expects: cover.expects.flatMap(step),
    events: cover.events.flatMap((e) => step(e.id).map((id) => ({ ...e, id }))),
  };
}

function byId<E extends { readonly id: string }>(first: readonly E[], second: readonly E[]): E[] {
  return [...first, ...second.filter((e) => !first.some((f) => f.id === e.id))];
}

/** Whether the steps of two cases say the same, in which case nothing is lost when only one's stay. */
export function saySame(a: readonly Step[], b: readonly Step[]): boolean {
  const said = (step: Step): unknown => (isUse(step) ? { ...step, id: '' } : [step.action, step.expected]);
  return JSON.stringify(a.map(said)) === JSON.stringify(b.map(said));
}
