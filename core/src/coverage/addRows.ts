import type { ConditionId } from '../artefacts/index.ts';
import { parameterId, rowId, type CaseContent, type Cover, type Parameter, type ParameterType, type Row } from '../cases/index.ts';
import type { ConditionContent, Field } from '../conditions/index.ts';
import type { ValueKind } from '../values/index.ts';
import type { ProposedRow } from './fillGap.ts';

/** Makes an id that is new in the case. */
export type NewId = () => string;

const PARAMETER_TYPE_OF: Record<ValueKind, ParameterType> = {
  whole: 'whole',
  decimal: 'decimal',
  date: 'date',
  time: 'time',
  dateTime: 'dateTime',
  textLength: 'text',
  choice: 'text',
  yesNo: 'yesNo',
};

/** The cover of a case for a condition, made if the case does not cover it yet. */
function coverOf(content: CaseContent, id: ConditionId, seenVersion: number): Cover {
  return content.covers.find((c) => c.id === id) ?? { id, seenVersion, fields: [], outcome: null, expects: [] };
}

/**
 * The case with proposed rows added. Fields that no parameter carries yet are carried by the parameter of the same
 * name, or by a new one. The row's outcome goes to the cover's outcome parameter, when there is one.
 */
export function addProposedRows(content: CaseContent, id: ConditionId, condition: { readonly version: number; readonly content: ConditionContent }, rows: readonly ProposedRow[], newId: NewId): CaseContent {
  const { model } = condition.content;
  if (model.kind !== 'valueRanges') return content;
  const mapped = mapFields(content, coverOf(content, id, condition.version), model.fields, newId);
  const added = rows.map((row): Row => ({ id: rowId(newId()), name: row.name, cells: cellsOf(row, mapped.cover) }));
  const others = mapped.content.covers.some((c) => c.id === id);
  const covers = others ? mapped.content.covers.map((c) => (c.id === id ? mapped.cover : c)) : [...mapped.content.covers, mapped.cover];
  return { ...mapped.content, covers, rows: [...mapped.content.rows, ...added] };
}

function mapFields(content: CaseContent, cover: Cover, fields: readonly Field[], newId: NewId): { content: CaseContent; cover: Cover } {
  let parameters: readonly Parameter[] = content.parameters;
  let mapped = cover;
  for (const field of fields) {
    if (mapped.fields.some((f) => f.id === field.id)) continue;
    let carrier = parameters.find((p) => p.name.toLowerCase() === field.name.toLowerCase());
    if (carrier === undefined) {
      carrier = { id: parameterId(newId()), name: field.name, type: PARAMETER_TYPE_OF[field.type.kind], default: '', description: '' };
      parameters = [...parameters, carrier];
    }
    mapped = { ...mapped, fields: [...mapped.fields, { id: field.id, parameter: carrier.id }] };
  }
  return { content: { ...content, parameters }, cover: mapped };
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
