import type { WritingHabits } from '@caderno/core/values';

/** How the reader writes numbers and dates, by the language of the browser. */
export function writingHabits(): WritingHabits {
  const number = new Intl.NumberFormat().formatToParts(1.5).find((part) => part.type === 'decimal')?.value;
  const [first] = new Intl.DateTimeFormat(undefined, { year: 'numeric', month: 'numeric', day: 'numeric' }).formatToParts(new Date(2026, 10, 27)).filter((part) => part.type === 'day' || part.type === 'month' || part.type === 'year');
  return { decimalSign: number === ',' ? ',' : '.', dates: first?.type === 'day' ? 'dayFirst' : first?.type === 'month' ? 'monthFirst' : 'yearFirst' };
}
