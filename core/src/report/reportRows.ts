import type { ReportTable } from './reportDocument.ts';

/** What is said below a table of which not all rows are read; null: all are. */
export function moreRows({ rows, most, more }: ReportTable): string | null {
  const left = Math.max(0, rows.length - most) + more;
  return left === 0 ? null : `and ${left} more`;
}
