import type { ConditionId } from '../artefacts/index.ts';
import { newCover, newRow, parameterId, rowId, withRowsRunning, type CaseContent, type Cover, type Parameter, type ParameterType, type Row } from '../cases/index.ts';
import { carriedFields, type CarriedField, type ConditionContent, type Model } from '../conditions/index.ts';
import type { ValueKind } from '../values/index.ts';
import type { ProposedRow } from './rowsMade.ts';

/** Makes an id that is new in the case. */
export type NewId = () => string;

/** A condition in the version that is before a person. */
export interface SeenCondition {
  readonly id: ConditionId;
  readonly version: number;
  readonly content: ConditionContent;
}

const PARAMETER_TYPE_OF: Record<ValueKind, ParameterType> = {
  whole: 'whole',
  decimal: 'decimal',
  date: 'date',
  time: 'time',
  dateTime: 'dateTime',
  textLength: 'text',
  textPattern: 'text',
  choice: 'text',
  yesNo: 'yesNo',
};

function parameterTypeOf(model: Model, field: CarriedField): ParameterType {
  const range = model.kind === 'valueRanges' ? model.fields.find((f) => f.id === field.id) : undefined;
  return range === undefined ? 'text' : PARAMETER_TYPE_OF[range.type.kind];
}

/** The cover of a case for a condition, made if the case does not cover it yet. */
export function coverOf(content: CaseContent, { id, version }: Pick<SeenCondition, 'id' | 'version'>): Cover {
  return content.covers.find((c) => c.id === id) ?? newCover(id, version);
}

/** The case with a cover in the place of the one for the same condition, or as its last. */
export function withCover(content: CaseContent, cover: Cover): CaseContent {
  const there = content.covers.some((c) => c.id === cover.id);
  return { ...content, covers: there ? content.covers.map((c) => (c.id === cover.id ? cover : c)) : [...content.covers, cover] };
}

/**
 * The case with proposed rows added. Fields that no parameter carries yet are carried by the parameter of the same
 * name, or by a new one. The row's outcome goes to the cover's outcome parameter, when there is one.
 */
export function addProposedRows(content: CaseContent, condition: SeenCondition, rows: readonly ProposedRow[], newId: NewId): CaseContent {
  const mapped = mapFields(content, condition, newId);
  const cover = coverOf(mapped, condition);
  const added = rows.map((row): Row => newRow(rowId(newId()), row.name, cellsOf(row, cover)));
  return { ...mapped, rows: [...mapped.rows, ...added], runs: withRowsRunning(mapped.runs, added.map((row) => row.id)) };
}

/** The case with a parameter for every field of the condition that none carries yet. */
export function mapFields(content: CaseContent, condition: SeenCondition, newId: NewId): CaseContent {
  const { model } = condition.content;
  let parameters: readonly Parameter[] = content.parameters;
  let cover = coverOf(content, condition);
  for (const field of carriedFields(model)) {
    if (cover.fields.some((f) => f.id === field.id)) continue;
    let carrier = parameters.find((p) => p.name.toLowerCase() === parameterName(field.name).toLowerCase());
    if (carrier === undefined) {
      carrier = { id: parameterId(newId()), name: parameterName(field.name), type: parameterTypeOf(model, field), default: '', description: '' };
      parameters = [...parameters, carrier];
    }
    cover = { ...cover, fields: [...cover.fields, { id: field.id, parameter: carrier.id }] };
  }
  return withCover({ ...content, parameters }, cover);
}

/** A field's name as a parameter's: without the angle brackets and line breaks that texts could not hold. */
function parameterName(name: string): string {
  return name.replaceAll(/[<>\n\r]+/g, ' ').trim().slice(0, 60) || 'value';
}

function cellsOf(row: ProposedRow, cover: Cover): Record<string, string> {
  const cells: Record<string, string> = {};
  for (const { field, cell } of row.values) {
    const carrier = cover.fields.find((f) => f.id === field);
    if (carrier !== undefined && cell !== '') cells[carrier.parameter] = cell;
  }
  if (cover.outcome !== null && row.outcome !== '') cells[cover.outcome] = row.outcome;
  return cells;
}
