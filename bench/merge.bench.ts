import { mergeContent, type Json } from '@caderno/core/versions';
import { report, timed, type Figure } from './measure.ts';

const rows = (count: number, cell: (i: number) => string): Json => Array.from({ length: count }, (_, i) => ({ id: `r${i}`, name: '', cells: { a: cell(i), b: 'as before', c: '12.50' } }));

/** Merging rows of which one side changed every second, and the other the rest, added some and turned the order around. */
async function mergeFigure(count: number, budget: number): Promise<Figure> {
  const base = { rows: rows(count, String) };
  const mine = { rows: rows(count, (i) => (i % 2 === 0 ? `m${i}` : String(i))) };
  const theirs = { rows: [...(rows(count + 500, (i) => (i % 2 === 1 ? `t${i}` : String(i))) as readonly Json[])].reverse() };
  let conflicts = -1;
  const ms = await timed(() => (conflicts = mergeContent(base, mine, theirs).conflicts.length));
  if (conflicts !== 0) throw new Error(`Nothing was changed by both, ${conflicts} conflicts were found`);
  return { what: `merging ${count.toLocaleString('en')} rows changed on both sides`, ms, budget };
}

export async function mergeFigures(): Promise<Figure[]> {
  await mergeFigure(1_000, 1_000);
  return [await mergeFigure(20_000, 500), await mergeFigure(100_000, 3_000)];
}

if (process.argv[1]?.endsWith('merge.bench.ts')) process.exitCode = report(await mergeFigures()) ? 0 : 1;
