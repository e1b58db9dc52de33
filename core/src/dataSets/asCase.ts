import { EMPTY_CASE, newCover, type CaseContent } from '../cases/index.ts';
import type { DataSetContent } from './dataSet.ts';

/** A data set as though it were a case: all its rows run, and it covers what it serves. What shows items is judged of cases. */
export function asCase({ title, parameters, rows, serves }: Pick<DataSetContent, 'title' | 'parameters' | 'rows' | 'serves'>): CaseContent {
  return { ...EMPTY_CASE, title, parameters, rows, covers: serves.map((s) => ({ ...newCover(s.id, s.seenVersion), fields: s.fields, outcome: s.outcome })) };
}

/** The data set after such a case was changed. */
export function fromCase(set: DataSetContent, { parameters, rows, covers }: CaseContent): DataSetContent {
  return { ...set, parameters, rows, serves: covers.map(({ id, seenVersion, fields, outcome }) => ({ id, seenVersion, fields, outcome })) };
}
