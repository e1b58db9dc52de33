import type { CoveringId } from '../artefacts/index.ts';
import { bindRow, bindText, isPlainStep, type CaseContent, type Row, type RowId } from '../cases/index.ts';
import type { ConditionCoverage } from './conditionCoverage.ts';
import { shownIn } from './shownList.ts';

/** A row with an invalid value for which the same is expected as for a valid one. */
export interface UnrefusedRow {
  readonly row: RowId;
  readonly rowName: string;
  /** The valid row for which the same is expected. */
  readonly like: string;
}

/**
 * Of these rows, those that show something invalid, or are marked so, while the case expects of them what it expects of a valid row: the values of what
 * is tried apart, word for word. In the order of the rows. Empty when no step of the case itself expects anything.
 */
export function unrefusedRows(id: CoveringId, content: CaseContent, rows: readonly Row[], coverages: Iterable<ConditionCoverage>): UnrefusedRow[] {
  const invalid = rowsShowingInvalid(id, coverages);
  for (const row of rows) if (row.mark === 'invalid') invalid.add(row.id);
  if (invalid.size === 0 || !content.steps.some((s) => isPlainStep(s) && s.expected.trim() !== '')) return [];
  const validLike = new Map(rows.filter((r) => !invalid.has(r.id)).toReversed().map((r) => [expectedOf(content, r), r.name]));
  return rows.flatMap((row) => {
    const like = invalid.has(row.id) ? validLike.get(expectedOf(content, row)) : undefined;
    return like === undefined ? [] : [{ row: row.id, rowName: row.name, like }];
  });
}

function rowsShowingInvalid(id: CoveringId, coverages: Iterable<ConditionCoverage>): Set<RowId> {
  const invalid = new Set<RowId>();
  for (const { items, evidence } of coverages) {
    const own = evidence.find((e) => e.case === id);
    own?.rows.forEach((row, instance) => {
      if (row !== null && shownIn(own.shown, instance).some((place) => items[place]?.item.valid === false)) invalid.add(row.id);
    });
  }
  return invalid;
}

/** What the case's steps expect of a row; the parameters that carry what is tried stay names. */
function expectedOf(content: CaseContent, row: Row): string {
  const tried = new Set(content.covers.flatMap((c) => c.fields.map((f) => f.parameter)));
  const values = bindRow(content.parameters, row);
  const parameters = content.parameters.filter((p) => !tried.has(p.id));
  const texts = content.steps.filter(isPlainStep).map((s) => bindText(s.expected, parameters, values));
  return JSON.stringify(texts.map((parts) => parts.map((part) => (part.kind === 'text' ? part.text : part.value.kind === 'value' ? part.value.text : `<${part.name}>`)).join('')));
}
