import { newRow, rowId, type Parameter, type Row } from '../cases/index.ts';
import { DEFAULT_MOST_ITEMS, combinationProblems, countItems, coverageItems, fieldId, combinationJudge, tuplesShown, type CombinationModel, type CombinationProblem, type ConditionContent, type Strength } from '../conditions/index.ts';
import { readCell } from '../data/index.ts';
import { CombinationRows } from '../coverage/index.ts';
import { withoutDoubles } from './doubles.ts';

/** A column and the values that are combined in it. */
export interface CombinedColumn {
  readonly parameter: Parameter;
  readonly values: readonly string[];
}

/** Which columns are combined, how much, and what may not go together. */
export interface Combining {
  readonly columns: readonly CombinedColumn[];
  readonly strength: Strength;
  /** One a line, about columns by their names; see `readConstraint`. */
  readonly constraints: string;
  readonly seed: number;
}

/** `combinations`: how many there are to be shown; `shownBefore`: by rows that are there already. */
export type CombinedRows =
  | { readonly kind: 'made'; readonly rows: readonly Row[]; readonly combinations: number; readonly shownBefore: number }
  | { readonly kind: 'tooMany'; readonly combinations: bigint; readonly most: number }
  | { readonly kind: 'problems'; readonly problems: readonly CombinationProblem[]; readonly model: CombinationModel };

/** How many steps the rows are improved: the same input makes the same rows. */
const STEPS = 4_000;

/**
 * Rows that show every combination of the columns' values that no row shows yet, as few as are found in some steps.
 * Deterministic for a seed. Refused when there are more combinations than a condition may have items.
 */
export function combinedRows(combining: Combining, rows: readonly Row[], newId: () => string, most = DEFAULT_MOST_ITEMS): CombinedRows {
  const model = modelOf(combining);
  const problems = combinationProblems(model);
  if (problems.length > 0) return { kind: 'problems', problems, model };
  const combinations = countItems(model);
  if (combinations > BigInt(most)) return { kind: 'tooMany', combinations, most };
  const content: Pick<ConditionContent, 'title' | 'polarity' | 'model'> = { title: '', polarity: 'both', model };
  const items = coverageItems(content, most);
  const shown = placesShown(model, rows);
  const missing = new Set(items.flatMap((item, place) => (shown.has(place) ? [] : [item.key])));
  const search = new CombinationRows(model, missing);
  search.improve(STEPS);
  const made = search.made.rows.map((row) => newRow(rowId(newId()), row.name, Object.fromEntries(row.values.map(({ field, cell }) => [field, cell]))));
  return { kind: 'made', rows: withoutDoubles(made, rows, combining.columns.map((c) => c.parameter)), combinations: items.length, shownBefore: shown.size };
}

/** Columns as factors of a combination whose values are all valid. */
function modelOf({ columns, strength, constraints, seed }: Combining): CombinationModel {
  return {
    kind: 'combination',
    factors: columns.map(({ parameter, values }) => ({ id: fieldId(parameter.id), name: parameter.name, values: values.map((value, i) => ({ id: `v${i + 1}`, value, aliases: [], valid: true, base: false, outcome: '' })) })),
    constraints: constraints.split('\n').flatMap((text, i) => (text.trim() === '' ? [] : [{ id: `c${i + 1}`, text: text.trim() }])),
    strength,
    groups: [],
    seed,
  };
}

function placesShown(model: CombinationModel, rows: readonly Row[]): Set<number> {
  const judge = combinationJudge(model);
  const again: number[] = [];
  return new Set(rows.flatMap((row) => {
    const values = model.factors.map((f) => {
      const cell = readCell(row.cells[f.id] ?? '');
      return cell.kind === 'text' ? ({ kind: 'value', text: cell.text } as const) : null;
    });
    return [...tuplesShown(judge, values, again)];
  }));
}
