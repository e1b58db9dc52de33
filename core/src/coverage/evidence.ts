import type { CaseId, CoveringId } from '../artefacts/index.ts';
import { bindCell, isPlainStep, type BoundValue, type CaseContent, type Cover, type Parameter, type Row, type RowId } from '../cases/index.ts';
import type { CarriedField, FieldValue, ModelJudge, WalkedEvent } from '../conditions/index.ts';
import { ShownListMaker, shownIn, type ShownList } from './shownList.ts';
import { givenIn, tellingOf, tellingParameters, tells, tellsAlways, type Telling, type ToldCondition } from './telling.ts';

/** An instance that shows an item. `row` null: the case's one instance without a row. */
export interface InstanceRef {
  readonly case: CoveringId;
  readonly row: RowId | null;
  readonly rowName: string;
}

/** What a case shows of one condition. */
export interface Evidence {
  readonly case: CoveringId;
  /** Cases it calls that show something of the condition in its place, each once. */
  readonly through: readonly CaseId[];
  /**
   * All rows it runs, also those that show nothing; null: the one instance of a case without rows. Where calls run a row
   * several times, it shows what any of these instances shows.
   */
  readonly rows: readonly (Row | null)[];
  readonly shown: ShownList;
  /** By place of the item: how many instances show it. */
  readonly counts: readonly number[];
  /** The parameters that carry the fields, by which instances were judged; null: the field is carried by none. */
  readonly carriers: readonly (Parameter | null)[];
  /** The parameters by whose values somebody could tell whether an instance passes; null: no values decide that. */
  readonly told: { readonly by: readonly Parameter[]; readonly telling: Telling } | null;
}

/**
 * What a case shows of a condition it covers when it is run with these rows: what its values, its path or its steps
 * demonstrate, in the instances in which somebody could tell whether they pass. With the evidence of an earlier version
 * of the same case, rows that give the same values are not judged again.
 */
export function caseEvidence(id: CoveringId, content: CaseContent, rows: Evidence['rows'], cover: Cover, judge: ModelJudge, condition: ToldCondition, fields: readonly CarriedField[], earlier: Evidence | null = null): Evidence {
  const telling = tellingOf(content.steps.filter(isPlainStep), content, cover, condition);
  const always = tellsAlways(telling);
  const told = always === null ? { by: tellingParameters(telling, content), telling } : null;
  const carriers = judge.showing.kind === 'values' ? fields.map((field) => carrierOf(content, cover, field.id)) : [];
  const demonstrated = demonstration(content, cover, judge, carriers);
  if (always === false || demonstrated === null) return { ...alike(id, rows, judge, []), told };
  if (Array.isArray(demonstrated) && told === null) return alike(id, rows, judge, demonstrated);
  const of = (row: Row | null): readonly number[] => (typeof demonstrated === 'function' ? demonstrated(row) : demonstrated);
  const shownBy = told === null ? of : (row: Row | null) => (tells(telling, givenIn(told.by, row)) ? of(row) : []);
  // Of what steps and paths show, only telling depends on the row: to begin anew is as quick.
  return valuesEvidence(id, rows, judge, { carriers, told }, shownBy, judge.showing.kind === 'values' ? earlier : null);
}

/** What instances demonstrate, whether or not somebody could tell: all the same, or each by its row; null: nothing. */
function demonstration(content: CaseContent, cover: Cover, { showing }: ModelJudge, carriers: Evidence['carriers']): readonly number[] | ((row: Row | null) => readonly number[]) | null {
  switch (showing.kind) {
    case 'refused':
      return null;
    case 'expectation':
      return [0];
    case 'path':
      return showing.shown(cover.start, walkedEvents(content, cover));
    case 'values': {
      if (carriers.every((p) => p === null)) return null;
      // One list for all rows: what is shown does not hold on to it.
      const given = new Array<FieldValue | null>(carriers.length).fill(null);
      return (row) => {
        for (let i = 0; i < carriers.length; i += 1) {
          const carrier = carriers[i] ?? null;
          given[i] = carrier === null ? null : fieldValue(bindCell(carrier, row));
        }
        return showing.shown(given);
      };
    }
  }
}

/** An instance as it is named in lists. */
export function instanceRef(id: CoveringId, row: Row | null): InstanceRef {
  return { case: id, row: row?.id ?? null, rowName: row?.name ?? '' };
}

/** The events that the steps of a case carry for a condition, in the order of the steps. */
export function walkedEvents(content: Pick<CaseContent, 'steps'>, cover: Pick<Cover, 'events'>): WalkedEvent[] {
  return content.steps.flatMap((step) => cover.events.find((e) => e.id === step.id) ?? []);
}

/** Every instance of the case shows the same. */
function alike(id: CoveringId, rows: Evidence['rows'], judge: ModelJudge, shown: readonly number[]): Evidence {
  const list = new ShownListMaker(rows.length);
  const counts = new Array<number>(judge.size).fill(0);
  for (const place of shown) counts[place] = rows.length;
  for (let i = 0; i < rows.length; i += 1) list.add(shown);
  return { case: id, through: [], rows, shown: list.finish(), counts, carriers: [], told: null };
}

function valuesEvidence(id: CoveringId, rows: Evidence['rows'], judge: ModelJudge, { carriers, told }: Pick<Evidence, 'carriers' | 'told'>, shownBy: (row: Row | null) => readonly number[], earlier: Evidence | null): Evidence {
  const known = earlier !== null && sameCarriers(earlier.carriers, carriers) && sameTelling(earlier.told, told) ? earlier : null;
  const deciding = [...carriers, ...(told?.by ?? [])];
  const before = known?.rows ?? [];
  const { first, last } = commonEnds(before, rows);
  const counts = known === null ? new Array<number>(judge.size).fill(0) : [...known.counts];
  const list = new ShownListMaker(rows.length);
  const forget = (instance: number): void => {
    for (const place of known === null ? [] : shownIn(known.shown, instance)) counts[place] = (counts[place] ?? 0) - 1;
  };
  for (let gone = first; gone < before.length - last; gone += 1) forget(gone);
  for (let i = 0; i < rows.length; ) {
    const shift = i < first ? 0 : before.length - rows.length;
    const kept = known === null ? 0 : countKept(before, rows, i, i < first ? first : i >= rows.length - last ? rows.length : i, shift, deciding);
    if (known !== null && kept > 0) {
      list.copy(known.shown, i + shift, i + shift + kept);
      i += kept;
      continue;
    }
    if (i < first || i >= rows.length - last) forget(i + shift);
    const shown = shownBy(rows[i] ?? null);
    for (const place of shown) counts[place] = (counts[place] ?? 0) + 1;
    list.add(shown);
    i += 1;
  }
  return { case: id, through: [], rows, shown: list.finish(), counts, carriers, told };
}

/** How many rows from one on, up to an end, have the same carried values as those `shift` further in the rows before. */
function countKept(before: readonly (Row | null)[], rows: readonly (Row | null)[], from: number, end: number, shift: number, carriers: Evidence['carriers']): number {
  let at = from;
  while (at < end && sameCells(before[at + shift] ?? null, rows[at] ?? null, carriers)) at += 1;
  return at - from;
}

/** How many rows at the beginning, and then at the end, are the same rows, whatever they hold. */
function commonEnds(before: readonly (Row | null)[], rows: readonly (Row | null)[]): { first: number; last: number } {
  const shorter = Math.min(before.length, rows.length);
  const same = (a: Row | null | undefined, b: Row | null | undefined): boolean => a?.id === b?.id;
  let first = 0;
  while (first < shorter && same(before[first], rows[first])) first += 1;
  let last = 0;
  while (last < shorter - first && same(before[before.length - 1 - last], rows[rows.length - 1 - last])) last += 1;
  return { first, last };
}

function sameCarriers(a: Evidence['carriers'], b: Evidence['carriers']): boolean {
  return a.length === b.length && a.every((p, i) => p?.id === b[i]?.id && p?.default === b[i]?.default);
}

/** Whether the same values tell. What is told without values, or never, says so by itself. */
function sameTelling(a: Evidence['told'], b: Evidence['told']): boolean {
  if (a === null || b === null) return a === b;
  const spoken = ({ telling }: NonNullable<Evidence['told']>): string => JSON.stringify([telling.outcome, telling.results.map((r) => [r.hasWords, r.names])]);
  return sameCarriers(a.by, b.by) && spoken(a) === spoken(b);
}

function sameCells(a: Row | null, b: Row | null, carriers: Evidence['carriers']): boolean {
  return a === b || (a !== null && b !== null && a.id === b.id && carriers.every((p) => p === null || a.cells[p.id] === b.cells[p.id]));
}

function carrierOf(content: CaseContent, cover: Cover, field: string): Parameter | null {
  const mapping = cover.fields.find((f) => f.id === field);
  return mapping === undefined ? null : (content.parameters.find((p) => p.id === mapping.parameter) ?? null);
}

/** A parameter's value as a field takes it; null: none is given. */
export function fieldValue(bound: BoundValue): FieldValue | null {
  return bound.kind === 'unbound' ? null : bound;
}
