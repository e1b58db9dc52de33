import type { CoveringId, ConditionId, QuestionId } from '../artefacts/index.ts';
import type { Technique } from '../conditions/index.ts';
import type { CaseCounts } from './caseCounts.ts';
import type { CoverageIndex } from './coverageIndex.ts';
import { heldUp } from './heldUp.ts';
import { showingCases } from './report.ts';
import type { Standing } from './standing.ts';
import type { ConditionTally } from './totals.ts';

/** What coverage says of a counted condition: `techniques[i]` is that of the item with `standings[i]`. */
export interface ConditionRow {
  readonly kind: 'condition';
  readonly id: ConditionId;
  readonly weight: number;
  readonly standings: readonly Standing[];
  readonly techniques: readonly Technique[];
}

/** What coverage says of a case that shows something, or whose counts are not those of its own rows and steps (null: they are). */
export interface CaseRow {
  readonly kind: 'case';
  readonly id: CoveringId;
  readonly shows: boolean;
  readonly counts: CaseCounts | null;
}

/** How many items an open question holds up. */
export interface QuestionRow {
  readonly kind: 'question';
  readonly id: QuestionId;
  readonly heldUp: number;
}

/** What coverage says of one artefact, small enough to be kept of each and sent when it changes. Where there is no row, there is nothing to say. */
export type CoverageRow = ConditionRow | CaseRow | QuestionRow;
export type CoverageRowId = CoverageRow['id'];

/** Rows of a project as they were, to tell which have changed. */
export type CoverageRows = ReadonlyMap<CoverageRowId, CoverageRow>;

/** All rows of a project: what {@link reportOfRows} makes the report of. Rows that say the same as in `before` are the same objects. */
export function coverageRows(index: CoverageIndex, before: CoverageRows = new Map()): Map<CoverageRowId, CoverageRow> {
  const rows = new Map<CoverageRowId, CoverageRow>();
  const put = (row: CoverageRow): void => {
    const known = before.get(row.id);
    rows.set(row.id, known !== undefined && saysSame(known, row) ? known : row);
  };
  for (const { id, counted, judge } of index.entries.values()) {
    if (counted !== null) put(conditionRow(id, counted.tally, judge.techniques));
  }
  const showing = showingCases(index);
  const opened = index.openedCounts();
  for (const { id, state } of index.cases.values()) {
    if (state !== 'withdrawn' && (showing.has(id) || opened.has(id))) put({ kind: 'case', id, shows: showing.has(id), counts: opened.get(id) ?? null });
  }
  for (const [id, count] of heldUp(index)) put({ kind: 'question', id, heldUp: count });
  return rows;
}

function conditionRow(id: ConditionId, { weight, standings }: ConditionTally, techniques: readonly Technique[]): ConditionRow {
  return { kind: 'condition', id, weight, standings, techniques };
}

/** What is to be written to bring `before` to `after`: rows that are new or say something else, and the ids of those that are no more. */
export function changedRows(before: CoverageRows, after: CoverageRows): { readonly changed: CoverageRow[]; readonly gone: CoverageRowId[] } {
  const changed = [...after.values()].filter((row) => {
    const known = before.get(row.id);
    return known !== row && (known === undefined || !saysSame(known, row));
  });
  return { changed, gone: [...before.keys()].filter((id) => !after.has(id)) };
}

function saysSame(a: CoverageRow, b: CoverageRow): boolean {
  if (a.kind === 'condition' && b.kind === 'condition') return a.weight === b.weight && sameList(a.standings, b.standings) && sameList(a.techniques, b.techniques);
  if (a.kind === 'case' && b.kind === 'case') return a.shows === b.shows && a.counts?.instances === b.counts?.instances && a.counts?.steps === b.counts?.steps;
  return a.kind === 'question' && b.kind === 'question' && a.heldUp === b.heldUp;
}

function sameList(a: readonly string[], b: readonly string[]): boolean {
  return a === b || (a.length === b.length && a.every((value, i) => value === b[i]));
}
