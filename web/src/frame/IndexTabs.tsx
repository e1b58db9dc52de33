import { percentDown, shownRatio } from '@caderno/core/coverage';
import { Link, useLocation } from 'react-router';
import { useBaselines, useCoverage, useFigures, useSummaries } from '../api/index.ts';
import { countOf, locale } from '../look/index.ts';
import { CHAPTERS, chapterAt, type ChapterPath } from './chapters.ts';

/** The tabs at the right edge of the book, each with what it holds. */
export function IndexTabs({ project, isPast }: { readonly project: string; readonly isPast: boolean }) {
  const here = chapterAt(useLocation().pathname);
  const figures = useFigures(project);
  const coverage = useCoverage(project).data;
  const baselines = useBaselines(project).data;
  const suites = useSummaries(project, 'suite').data?.filter((s) => s.state !== 'withdrawn').length;
  const percent = coverage === undefined ? null : percentDown(shownRatio(coverage.counts));
  const figure: Record<ChapterPath, string> = {
    basis: figures === undefined ? '' : countOf(figures.requirements, 'requirement'),
    conditions: figures === undefined ? '' : figures.conditions.toLocaleString(locale()),
    cases: figures === undefined ? '' : `${figures.cases.toLocaleString(locale())} · ${coverage === undefined ? '…' : countOf(coverage.instances, 'instance')}`,
    scenarios: figures === undefined ? '' : figures.scenarios.toLocaleString(locale()),
    shared: figures === undefined ? '' : figures.shared.toLocaleString(locale()),
    coverage: coverage === undefined ? '' : [percent === null ? '' : `${percent} %`, coverage.unanalysed.length === 0 ? '' : `${coverage.unanalysed.length.toLocaleString(locale())} not analysed`].filter(Boolean).join(' · '),
    suites: suites === undefined || suites === 0 ? '' : suites.toLocaleString(locale()),
    baselines: baselines === undefined || baselines.length === 0 ? '' : baselines.length.toLocaleString(locale()),
  };
  return (
    <nav aria-label="Chapters" className="w-[103px] shrink-0 space-y-1.5 pr-3.5 pt-4 max-phone:flex max-phone:w-full max-phone:gap-1 max-phone:space-y-0 max-phone:overflow-x-auto max-phone:p-0 max-phone:pb-1">
      {CHAPTERS.filter((c) => !isPast || c.path !== 'baselines').map((c) => (
        <Link
          key={c.path}
          to={`/${project}/${c.path}`}
          aria-current={c.path === here ? 'page' : undefined}
          className={`block min-h-[49px] shrink-0 rounded-r-[8px] border border-l-0 border-rule2 px-3 py-1.5 max-phone:min-h-8 max-phone:rounded-panel max-phone:border-l ${c.path === here ? '-mr-1.5 border-r-4 border-r-blue bg-page font-semibold max-phone:mr-0' : 'bg-page2 text-ink2 hover:bg-page'}`}
        >
          <span className="block text-[13px] font-semibold leading-5 text-ink">{c.name}</span>
          <span className="block text-fine font-normal leading-4 text-ink2 max-phone:hidden">{figure[c.path]}</span>
        </Link>
      ))}
    </nav>
  );
}
