import { comparisonMarkdown, comparisonSheets, type BaselineNumber, type ComparedFigure, type Comparison } from '@caderno/core/baselines';
import { percentDown, shownRatio } from '@caderno/core/coverage';
import { settingsWords, type FileAnswer, type FrozenCoverage, type QueryOf } from '@caderno/contract';
import type { UnitOfWork } from '../database/index.ts';
import { writeWorkbook } from '../files/index.ts';
import { compareBaselines, readBaseline } from './read.ts';

const TYPES = { xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', md: 'text/markdown; charset=utf-8' } as const;

/** What changed from a baseline to another, or to now, as a workbook or as Markdown; `now`: the coverage of now, where that is compared with. */
export async function exportComparison(work: UnitOfWork, projectId: string, number: BaselineNumber, { to, format }: QueryOf<'exportComparison'>, now: FrozenCoverage | null): Promise<FileAnswer> {
  const from = await readBaseline(work, projectId, number);
  const later = to === undefined ? null : await readBaseline(work, projectId, to);
  const { changes, reached, total, settings } = await compareBaselines(work, projectId, number, to ?? null);
  const comparison: Comparison = { title: `What changed since ${from.name}`, before: `B-${number} ${from.name}`, after: later === null ? 'now' : `B-${later.number} ${later.name}`, figures: figuresOf(from.coverage, later === null ? now : later.coverage), changes, settings: settingsWords(settings.parts, settings.constants), reached, more: total - changes.length };
  const name = `B-${number}-${later === null ? 'now' : `B-${later.number}`}.${format}`;
  return { name, type: TYPES[format], bytes: format === 'xlsx' ? await writeWorkbook(comparisonSheets(comparison)) : Buffer.from(comparisonMarkdown(comparison)) };
}

/** None where one of the two has no coverage. */
function figuresOf(before: FrozenCoverage | null, after: FrozenCoverage | null): ComparedFigure[] {
  if (before === null || after === null) return [];
  const figure = (name: string, of: (c: FrozenCoverage) => string | number): ComparedFigure => [name, String(of(before)), String(of(after))];
  return [
    figure('coverage in %', ({ counts }) => percentDown(shownRatio(counts)) ?? '–'),
    figure('shown', (c) => c.counts.shown),
    figure('linked only', (c) => c.counts.linked),
    figure('gaps', (c) => c.counts.gap),
    figure('waiting or suspect', (c) => c.counts.waiting + c.counts.suspect),
    figure('requirements not analysed', (c) => c.unanalysed),
    figure('cases', (c) => c.cases),
    figure('instances', (c) => c.instances),
    figure('minutes to execute', (c) => c.minutes),
  ];
}
