import { formatBound, isOrdered, parseDecimal, type OrderedType } from '../values/index.ts';
import { readPattern } from './pattern.ts';
import { readInterval, readIntervals, type Field, type FieldId, type Interval, type ValueRangesModel } from './valueRanges.ts';

/** What is wrong with a value ranges model, and where. Reported, never repaired. */
export type RangeProblem =
  | { readonly code: 'step_unreadable'; readonly field: FieldId; readonly step: string }
  | { readonly code: 'bound_unreadable'; readonly field: FieldId; readonly interval: string; readonly side: 'from' | 'to'; readonly text: string }
  | { readonly code: 'interval_empty'; readonly field: FieldId; readonly interval: string }
  | { readonly code: 'intervals_overlap'; readonly field: FieldId; readonly lower: string; readonly upper: string }
  /** `from` and `to` are the first and last value of the hole. */
  | { readonly code: 'intervals_leave_hole'; readonly field: FieldId; readonly lower: string; readonly upper: string; readonly from: string; readonly to: string }
  | { readonly code: 'choice_twice'; readonly field: FieldId; readonly value: string }
  | { readonly code: 'pattern_unreadable'; readonly field: FieldId; readonly name: string; readonly pattern: string }
  /** The example does not match, so no row can be made up. */
  | { readonly code: 'example_apart'; readonly field: FieldId; readonly name: string; readonly example: string }
  | { readonly code: 'no_partitions'; readonly field: FieldId };

/** In the order of the fields; within one, unreadable parts before overlaps and holes from low to high. */
export function rangeProblems(model: ValueRangesModel): RangeProblem[] {
  return model.fields.flatMap((field) => {
    const { type } = field;
    if (type.kind === 'textPattern') return patternProblems(field);
    return isOrdered(type) ? orderedProblems(field, type) : choiceProblems(field);
  });
}

function orderedProblems(field: Field, type: OrderedType): RangeProblem[] {
  if (field.intervals.length === 0) return [{ code: 'no_partitions', field: field.id }];
  return [...stepProblems(field, type), ...field.intervals.flatMap((i) => boundProblems(field, type, i)), ...adjoiningProblems(field, type)];
}

function stepProblems(field: Field, type: OrderedType): RangeProblem[] {
  if (type.kind !== 'decimal') return [];
  const step = parseDecimal(type.step);
  return step === null || step.units <= 0n ? [{ code: 'step_unreadable', field: field.id, step: type.step }] : [];
}

function boundProblems(field: Field, type: OrderedType, interval: Interval): RangeProblem[] {
  const sides = (['from', 'to'] as const).filter((side) => interval[side] !== '');
  const unreadable = sides.filter((side) => readInterval(type, { ...interval, from: '', to: '', [side]: interval[side] }) === null);
  if (unreadable.length > 0) {
    return unreadable.map((side) => ({ code: 'bound_unreadable', field: field.id, interval: interval.id, side, text: interval[side] }));
  }
  return readInterval(type, interval) === null ? [{ code: 'interval_empty', field: field.id, interval: interval.id }] : [];
}

function adjoiningProblems(field: Field, type: OrderedType): RangeProblem[] {
  const intervals = readIntervals(type, field.intervals);
  const problems: RangeProblem[] = [];
  let reach = intervals[0];
  for (const next of intervals.slice(1)) {
    if (reach === undefined) break;
    const pair = { field: field.id, lower: reach.interval.id, upper: next.interval.id };
    if (reach.to === null || next.from === null || next.from <= reach.to) problems.push({ code: 'intervals_overlap', ...pair });
    else if (next.from > reach.to + 1n) {
      problems.push({ code: 'intervals_leave_hole', ...pair, from: formatBound(type, reach.to + 1n) ?? '', to: formatBound(type, next.from - 1n) ?? '' });
    }
    // A wide interval may reach past the next one; holes begin after the farthest.
    if (reach.to !== null && (next.to === null || next.to > reach.to)) reach = next;
  }
  return problems;
}

function patternProblems(field: Field): RangeProblem[] {
  if (field.patterns.length === 0) return [{ code: 'no_partitions', field: field.id }];
  return field.patterns.flatMap(({ name, pattern, example }): RangeProblem[] => {
    const test = readPattern(pattern);
    if (test === null) return [{ code: 'pattern_unreadable', field: field.id, name, pattern }];
    return test(example) ? [] : [{ code: 'example_apart', field: field.id, name, example }];
  });
}

function choiceProblems(field: Field): RangeProblem[] {
  if (field.choices.length === 0) return [{ code: 'no_partitions', field: field.id }];
  const seen = new Set<string>();
  return field.choices.flatMap((choice) =>
    [choice.value, ...choice.aliases].flatMap((value): RangeProblem[] => {
      if (!seen.has(value)) {
        seen.add(value);
        return [];
      }
      return [{ code: 'choice_twice', field: field.id, value }];
    }),
  );
}
