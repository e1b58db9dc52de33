import { itemsShownByRow, rangeItems, rangeJudge, type CoverageItem, type FieldId, type FieldValue, type ItemKey, type RangeJudge, type ValueRangesModel } from '../conditions/index.ts';
import { readCell, type CellText } from '../data/index.ts';
import type { Filling, ProposedRow, RowsMade } from './rowsMade.ts';

interface Candidate {
  readonly values: ReadonlyMap<FieldId, CellText>;
  readonly shows: readonly ItemKey[];
  readonly aims: readonly CoverageItem[];
}

/**
 * Rows that show the missing items of a value ranges model. Fewest: each time the candidate that shows most of what is
 * left, the first in item order among equals; valid values of several fields share a row; an invalid value stands alone
 * among typical valid ones. One per item: a row for each.
 */
export function rangeRows(model: ValueRangesModel, missing: ReadonlySet<ItemKey>, how: Filling): RowsMade {
  const items = rangeItems(model);
  const judge = rangeJudge(model);
  const wanted = items.filter((i) => missing.has(i.key));
  const candidates = wanted.flatMap((item) => candidate(model, judge, items, item));
  if (how === 'fewest') return choose(judge, wanted, candidates);
  const rows = candidates.map((c) => proposedRow(c, c.aims));
  const made = new Set(rows.flatMap((r) => r.shows));
  return { rows, unreachable: wanted.filter((i) => !made.has(i.key)).map((i) => i.key) };
}

function choose(judge: RangeJudge, wanted: readonly CoverageItem[], candidates: readonly Candidate[]): RowsMade {
  const left = new Set(wanted.map((i) => i.key));
  const rows: ProposedRow[] = [];
  let pool = candidates;
  for (;;) {
    pool = pool.filter((c) => c.shows.some((k) => left.has(k)));
    const best = mostShowing(pool, left);
    if (best === null) break;
    const row = widen(judge, best, pool, left);
    const shows = wanted.filter((i) => left.has(i.key) && row.shows.includes(i.key));
    rows.push(proposedRow(row, shows));
    for (const item of shows) left.delete(item.key);
  }
  return { rows, unreachable: wanted.filter((i) => left.has(i.key)).map((i) => i.key) };
}

function mostShowing(pool: readonly Candidate[], left: ReadonlySet<ItemKey>): Candidate | null {
  let best: { candidate: Candidate; count: number } | null = null;
  for (const candidate of pool) {
    const count = candidate.shows.filter((k) => left.has(k)).length;
    if (count > (best?.count ?? 0)) best = { candidate, count };
  }
  return best?.candidate ?? null;
}

/** Lets a row of valid values take on the valid aims of the other fields as well. */
function widen(judge: RangeJudge, start: Candidate, pool: readonly Candidate[], left: ReadonlySet<ItemKey>): Candidate {
  if (!start.aims.every((i) => i.valid)) return start;
  let row = start;
  for (const other of pool) {
    const aim = other.aims[0];
    if (aim === undefined || !aim.valid || aim.field === null || row.aims.some((a) => a.field === aim.field)) continue;
    const values = new Map(row.values).set(aim.field, other.values.get(aim.field) ?? '');
    const shows = itemsShownByRow(judge, asFieldValues(values));
    const gains = shows.filter((k) => left.has(k)).length > row.shows.filter((k) => left.has(k)).length;
    if (gains) row = { values, shows, aims: [...row.aims, aim] };
  }
  return row;
}

function candidate(model: ValueRangesModel, judge: RangeJudge, items: readonly CoverageItem[], item: CoverageItem): Candidate[] {
  if (item.sample === null || item.field === null) return [];
  const values = new Map<FieldId, CellText>();
  for (const field of model.fields) {
    const typical = items.find((i) => i.field === field.id && i.kind === 'partition' && i.valid && i.sample !== null);
    values.set(field.id, field.id === item.field ? item.sample : (typical?.sample ?? ''));
  }
  const shows = itemsShownByRow(judge, asFieldValues(values));
  return shows.includes(item.key) ? [{ values, shows, aims: [item] }] : [];
}

function asFieldValues(values: ReadonlyMap<FieldId, CellText>): Map<FieldId, FieldValue> {
  const read = new Map<FieldId, FieldValue>();
  for (const [field, cell] of values) {
    const value = readCell(cell);
    if (value.kind === 'missing') read.set(field, value);
    else if (value.kind === 'text') read.set(field, { kind: 'value', text: value.text });
  }
  return read;
}

function proposedRow(row: Candidate, shows: readonly CoverageItem[]): ProposedRow {
  const aims = row.aims.filter((a) => shows.includes(a));
  return {
    name: aims.map((a) => a.name).join(', ').slice(0, 120),
    values: [...row.values].map(([field, cell]) => ({ field, cell })),
    outcome: [...new Set(aims.map((a) => a.outcome).filter((o) => o !== ''))].join('; '),
    shows: shows.map((i) => i.key),
  };
}
