import { EMPTY_CASE, newCover, plainStep, stepId, type CaseContent } from '../cases/index.ts';
import type { DataSetContent } from './dataSet.ts';

/** The cases that take the rows say what is expected. */
const TOLD = plainStep(stepId('told'), 'Use the row', 'What the case expects');

/** A data set as though it were a case: all its rows run, it covers what it serves, and somebody could tell. What shows items is judged of cases. */
export function asCase({ title, parameters, rows, serves }: Pick<DataSetContent, 'title' | 'parameters' | 'rows' | 'serves'>): CaseContent {
  return { ...EMPTY_CASE, title, steps: [TOLD], parameters, rows, covers: serves.map((s) => ({ ...newCover(s.id, s.seenVersion), fields: s.fields, expects: [TOLD.id], outcome: s.outcome })) };
}

/** The data set after such a case was changed. */
export function fromCase(set: DataSetContent, { parameters, rows, covers }: CaseContent): DataSetContent {
  return { ...set, parameters, rows, serves: covers.map(({ id, seenVersion, fields, outcome }) => ({ id, seenVersion, fields, outcome })) };
}
