import type { Field, RangeProblem } from '@caderno/core/conditions';
import { VALUE_WORD } from '../../look/index.ts';

/** What is wrong with a field's ranges and how to mend it. */
export function rangeProblemSentence(problem: RangeProblem, field: Field): string {
  const nameOf = (id: string): string => `“${field.intervals.find((i) => i.id === id)?.name ?? id}”`;
  switch (problem.code) {
    case 'step_unreadable':
      return `The step is a decimal number above zero; “${problem.step}” is none. 0.01 is used until it is mended.`;
    case 'bound_unreadable':
      return `${nameOf(problem.interval)} ${problem.side} “${problem.text}” cannot be read as a ${VALUE_WORD[field.type.kind]}. The interval counts only once it can; below the intervals stands how it may be written.`;
    case 'interval_empty':
      return `${nameOf(problem.interval)} begins after it ends, so nothing lies in it. Swap its bounds.`;
    case 'intervals_overlap':
      return `${nameOf(problem.lower)} and ${nameOf(problem.upper)} overlap: a value in both shows both. Move one bound.`;
    case 'intervals_leave_hole':
      return `Between ${nameOf(problem.lower)} and ${nameOf(problem.upper)} nothing is said of ${problem.from === problem.to ? problem.from : `${problem.from} to ${problem.to}`}. Close the hole or add an interval.`;
    case 'choice_twice':
      return `“${problem.value}” stands here twice. Remove one.`;
    case 'pattern_unreadable':
      return `The pattern of “${problem.name}” cannot be read${problem.pattern === '' ? ': it is empty' : ''}. It counts only once it can; looking around and back references are not part of patterns here.`;
    case 'example_apart':
      return `“${problem.example}” does not match the pattern of “${problem.name}”: no row can be made up for it.`;
    case 'no_partitions':
      return `Nothing to show yet for “${field.name}”: add an interval or a value.`;
  }
}
