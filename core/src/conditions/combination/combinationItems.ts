import { itemKey, type CoverageItem, type ItemKey } from '../item.ts';
import type { FieldValue } from '../otherClass.ts';
import { basePlace, combinedSets, countSubsets, tupleSize, type CombinationModel } from './combination.ts';
import { readConstraint } from './constraintText.ts';
import { Feasibility } from './feasibility.ts';
import { forbiddenBy, liesIn, type Forbidden } from './forbidden.ts';

/** Values of some factors, by place: what an item asks for. */
export interface Tuple {
  readonly factors: readonly number[];
  readonly values: readonly number[];
}

/** What the constraints of a model that can be read exclude; the others are problems of the model. */
export function forbiddenOf(model: CombinationModel): Forbidden[] {
  return model.constraints.flatMap((c, place) => {
    const read = readConstraint(c.text, model.factors);
    return read.kind === 'condition' ? (forbiddenBy(read.condition, place, model.factors) ?? []) : [];
  });
}

export function feasibilityOf(model: CombinationModel, forbidden: readonly Forbidden[] = forbiddenOf(model)): Feasibility {
  return new Feasibility(model.factors.map((f) => f.values.map((v) => v.valid)), forbidden);
}

/**
 * How many items a model may have, counted before anything is made: tuples that constraints exclude are counted too.
 * Groups are added up, though a set of theirs may be combined already.
 */
export function countCombinationItems(model: CombinationModel): bigint {
  const valid = model.factors.map((f) => BigInt(f.values.filter((v) => v.valid).length));
  const invalid = BigInt(model.factors.reduce((n, f) => n + f.values.filter((v) => !v.valid).length, 0));
  const groups = model.groups.map((g) => productsOf(model.factors.flatMap((f, i) => (g.factors.includes(f.id) ? [valid[i] ?? 0n] : [])), g.size));
  const main = model.strength === 'baseChoice' ? 1n + valid.reduce((n, v) => n + (v > 0n ? v - 1n : 0n), 0n) : productsOf(valid, tupleSize(model));
  // The sets themselves are made too, and may be many where each holds a single tuple.
  const sets = model.strength === 'baseChoice' ? 0n : countSubsets(model.factors.length, tupleSize(model));
  return (main > sets ? main : sets) + invalid + groups.reduce((a, b) => a + b, 0n);
}

/** The sum over all sets of `size` factors of the product of their numbers of values. */
function productsOf(counts: readonly bigint[], size: number): bigint {
  const sums = new Array<bigint>(size + 1).fill(0n);
  sums[0] = 1n;
  for (const count of counts) for (let k = size; k > 0; k -= 1) sums[k] = (sums[k] ?? 0n) + (sums[k - 1] ?? 0n) * count;
  return size > counts.length ? 0n : (sums[size] ?? 0n);
}

interface TupleSet {
  readonly factors: readonly number[];
  readonly strides: readonly number[];
  readonly from: number;
}

/** A combination model made ready: its items as tuples, and all that is needed to judge rows. */
export interface CombinationJudge {
  readonly model: CombinationModel;
  readonly forbidden: readonly Forbidden[];
  readonly feasibility: Feasibility;
  /** By place of the item; invalid values come last, as a tuple of one. */
  readonly tuples: readonly Tuple[];
  readonly invalidFrom: number;
  /** Tuples that no row can contain. */
  readonly infeasible: readonly Tuple[];
  /** Sets of factors that are combined; their tuples are numbered from `from` on, by the values as digits with these strides. */
  readonly sets: readonly TupleSet[];
  /** The same once more, flat, as it is gone through for every row: of each set of factors its size and where it begins in `places`, then factor and stride in turn: what is gone through for every row. */
  readonly layout: Int32Array;
  /** Set by set: the place of the item of each tuple, by the values as digits; -1 where it is none. */
  readonly places: Int32Array;
  /** By factor: the place of a value by its spellings. */
  readonly spellings: readonly ReadonlyMap<string, number>[];
  /** The base row, for base choice. */
  readonly base: readonly number[] | null;
}

export function combinationJudge(model: CombinationModel): CombinationJudge {
  const forbidden = forbiddenOf(model);
  const feasibility = feasibilityOf(model, forbidden);
  const tuples: Tuple[] = [];
  const infeasible: Tuple[] = [];
  const take = (tuple: Tuple): number => (feasibility.possible(tuple.factors, tuple.values) ? tuples.push(tuple) - 1 : (infeasible.push(tuple), -1));
  const base = model.strength === 'baseChoice' ? model.factors.map(basePlace) : null;
  if (base !== null) for (const tuple of baseTuples(model, base)) take(tuple);
  const places: number[] = [];
  const sets = combinedSets(model).map((factors): TupleSet => {
    const { strides, places: own } = placesOfSet(model, factors, take);
    const from = places.length;
    for (const place of own) places.push(place);
    return { factors, strides, from };
  });
  const layout = sets.flatMap((s) => [s.factors.length, s.from, ...s.factors.flatMap((f, i) => [f, s.strides[i] ?? 1])]);
  const invalidFrom = tuples.length;
  model.factors.forEach((factor, f) => factor.values.forEach((value, v) => (value.valid ? -1 : take({ factors: [f], values: [v] }))));
  const spellings = model.factors.map((f) => new Map(f.values.flatMap((v, place) => [v.value, ...v.aliases].map((text) => [text, place] as const)).toReversed()));
  return { model, forbidden, feasibility, tuples, invalidFrom, infeasible, sets, layout: Int32Array.from(layout), places: Int32Array.from(places), spellings, base };
}

/** The base row, then the base row with one factor varied, each over all factors. */
function baseTuples(model: CombinationModel, base: readonly number[]): Tuple[] {
  if (base.length === 0 || base.includes(-1)) return [];
  const factors = model.factors.map((_, f) => f);
  const varied = model.factors.flatMap((factor, f) => factor.values.flatMap((value, v) => (value.valid && v !== base[f] ? [{ factors, values: base.with(f, v) }] : [])));
  return [{ factors, values: base }, ...varied];
}

function placesOfSet(model: CombinationModel, factors: readonly number[], take: (tuple: Tuple) => number): { readonly strides: readonly number[]; readonly places: Int32Array } {
  const sizes = factors.map((f) => model.factors[f]?.values.length ?? 0);
  const strides = sizes.map((_, i) => sizes.slice(i + 1).reduce((a, b) => a * b, 1));
  const places = new Int32Array(sizes.reduce((a, b) => a * b, 1)).fill(-1);
  for (let code = 0; code < places.length; code += 1) {
    const values = sizes.map((size, i) => Math.floor(code / (strides[i] ?? 1)) % size);
    if (values.every((v, i) => model.factors[factors[i] ?? 0]?.values[v]?.valid === true)) places[code] = take({ factors, values });
  }
  return { strides, places };
}

function tupleKey({ model, base }: CombinationJudge, { factors, values }: Tuple): ItemKey {
  const part = (f: number, v: number): string => `${model.factors[f]?.id ?? ''}=${model.factors[f]?.values[v]?.id ?? ''}`;
  if (base === null || factors.length < base.length) return itemKey(`tuple:${factors.map((f, i) => part(f, values[i] ?? -1)).join('&')}`);
  const varied = values.findIndex((v, f) => v !== base[f]);
  return itemKey(varied < 0 ? 'base' : `vary:${part(varied, values[varied] ?? -1)}`);
}

/** Tuples set by set, in the order of factors and values; then the invalid values. */
export function combinationItems(judge: CombinationJudge): CoverageItem[] {
  const { model, tuples, invalidFrom, base } = judge;
  return tuples.map((tuple, place) => {
    const named = tuple.factors.map((f, i) => ({ name: model.factors[f]?.name ?? '', value: model.factors[f]?.values[tuple.values[i] ?? -1] }));
    const isInvalid = place >= invalidFrom;
    const varied = base === null || tuple.factors.length < base.length ? -1 : tuple.values.findIndex((v, f) => v !== base[f]);
    const shown = base !== null && varied >= 0 ? named.slice(varied, varied + 1) : named;
    return {
      key: isInvalid ? itemKey(`invalid:${model.factors[tuple.factors[0] ?? 0]?.id ?? ''}=${named[0]?.value?.id ?? ''}`) : tupleKey(judge, tuple),
      number: place + 1,
      kind: isInvalid ? 'invalidValue' : 'tuple',
      field: null,
      name: shown.map((n) => n.value?.value ?? '').join(' × '),
      extent: isInvalid ? `${named[0]?.name ?? ''}, alone` : varied >= 0 ? `${shown[0]?.name ?? ''}, the rest as usual` : shown.map((n) => n.name).join(', '),
      sample: null,
      valid: !isInvalid,
      outcome: isInvalid ? (named[0]?.value?.outcome ?? '') : '',
    };
  });
}

/** What the values of a row come to; places of values by factor, -1 where none is given. */
export type RowReading =
  | { readonly kind: 'row'; readonly values: readonly number[] }
  /** A text that is none of a factor's values, or no value on purpose: the row shows nothing. */
  | { readonly kind: 'unknownValue'; readonly factor: number; readonly text: string }
  | { readonly kind: 'broken'; readonly constraint: number }
  /** Invalid values of two factors: one may hide the other. */
  | { readonly kind: 'masked'; readonly factors: readonly number[] }
  | { readonly kind: 'invalid'; readonly factor: number; readonly value: number };

export function readCombinationRow({ model, forbidden, spellings }: CombinationJudge, given: readonly (FieldValue | null)[]): RowReading {
  const values: number[] = [];
  const invalid: number[] = [];
  for (let f = 0; f < model.factors.length; f += 1) {
    const [factor, value] = [model.factors[f], given[f] ?? null];
    const place = value?.kind === 'value' ? (spellings[f]?.get(value.text) ?? -1) : -1;
    if (value !== null && place < 0) return { kind: 'unknownValue', factor: f, text: value.kind === 'value' ? value.text : '' };
    values.push(place);
    if (place >= 0 && factor?.values[place]?.valid === false) invalid.push(f);
  }
  const broken = forbidden.length === 0 ? undefined : forbidden.find((box) => liesIn(box, values));
  if (broken !== undefined) return { kind: 'broken', constraint: broken.constraint };
  const [only] = invalid;
  if (only === undefined) return { kind: 'row', values };
  return invalid.length > 1 ? { kind: 'masked', factors: invalid } : { kind: 'invalid', factor: only, value: values[only] ?? -1 };
}

/**
 * The items (by place) that a row shows by the values it gives to the factors, in the order of the factors.
 * @param into an emptied list to be used again, where very many rows are judged.
 */
export function tuplesShown(judge: CombinationJudge, given: readonly (FieldValue | null)[], into: number[] = []): number[] {
  into.length = 0;
  const reading = readCombinationRow(judge, given);
  if (reading.kind === 'invalid') {
    const place = judge.tuples.findIndex((t, at) => at >= judge.invalidFrom && t.factors[0] === reading.factor && t.values[0] === reading.value);
    if (place >= 0) into.push(place);
  }
  return reading.kind === 'row' ? tuplesIn(judge, reading.values, into) : into;
}

/** Far enough below nought that no code leads back. */
const NOWHERE = -1_000_000_000;

function tuplesIn({ layout, places, base, tuples }: CombinationJudge, values: readonly number[], shown: number[]): number[] {
  if (base !== null && values.reduce((n, v, f) => n + (v === base[f] ? 0 : 1), 0) <= 1) {
    const place = tuples.findIndex((t) => t.factors.length === values.length && t.values.every((v, f) => v === values[f]));
    if (place >= 0) shown.push(place);
  }
  for (let at = 0; at < layout.length; ) {
    const end = at + 2 + 2 * (layout[at] ?? 0);
    let code = layout[at + 1] ?? 0;
    for (at += 2; at < end; at += 2) {
      const value = values[layout[at] ?? 0] ?? -1;
      code = value < 0 ? NOWHERE : code + value * (layout[at + 1] ?? 1);
    }
    const place = code < 0 ? -1 : (places[code] ?? -1);
    if (place >= 0) shown.push(place);
  }
  return shown;
}
