import type { CaseId } from '@caderno/core/artefacts';
import type { CaseCounts, CaseMark, Standing } from '@caderno/core/coverage';
import { parseQuery, QUERY_FIELDS, type QueryProblem } from '@caderno/core/find';
import type { CaseSummary } from '@caderno/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import { useCaseCounts, useCaseMarks } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, StandingShape, countOf } from '../look/index.ts';

interface Props {
  readonly cases: readonly CaseSummary[] | undefined;
  readonly current: CaseId | null;
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly onNew: () => void;
}

type Line = { readonly kind: 'group'; readonly name: string; readonly cases: number; readonly instances: number } | { readonly kind: 'case'; readonly summary: CaseSummary };

const MARK: Record<CaseMark, { readonly standing: Standing; readonly word: string }> = {
  shows: { standing: 'shown', word: 'shows items' },
  linked: { standing: 'linked', word: 'linked, shows nothing yet' },
  nothing: { standing: 'gap', word: 'covers nothing' },
};

/** The index of cases, grouped by module, filtered by a query. */
export function CaseIndex({ cases, current, query, onQuery, onNew }: Props) {
  const { project, canEdit } = useFrame();
  const marks = useCaseMarks(project).data;
  const counts = useCaseCounts(project).data;
  const lines = useMemo(() => grouped(cases ?? [], counts ?? {}), [cases, counts]);
  const { problems } = parseQuery(query);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: (i) => (lines[i]?.kind === 'group' ? 31 : 54), getItemKey: (i) => keyOf(lines[i]), overscan: 10 });
  const at = lines.findIndex((l) => l.kind === 'case' && l.summary.id === current);
  useEffect(() => {
    if (at >= 0) rows.scrollToIndex(at, { align: 'auto' });
  }, [at, rows]);
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        <h1 className="flex items-baseline gap-2 font-serif text-xl font-semibold">
          Cases <span className="font-sans text-xs font-normal text-ink2">{cases === undefined ? '' : countOf(cases.length, 'case')}</span>
        </h1>
        <div className="mt-2 flex gap-2">
          <input aria-label="Filter the cases by a query" placeholder='state:draft "roll over"' value={query} onChange={(e) => onQuery(e.target.value)} aria-describedby="query-note" className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && <Button onClick={onNew}>New</Button>}
        </div>
        <p id="query-note" className="text-xs text-brick">
          {problems.map(problemSentence).join(' ')}
        </p>
      </header>
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t border-rule" role="list" aria-label="Cases">
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((row) => {
            const line = lines[row.index];
            if (line === undefined) return null;
            return (
              <div key={row.key} ref={rows.measureElement} data-index={row.index} className="absolute inset-x-0" style={{ top: row.start }} role="listitem">
                {line.kind === 'group' ? <Group {...line} /> : <CaseLine project={project} summary={line.summary} counts={counts?.[line.summary.id]} isCurrent={line.summary.id === current} mark={marks?.[line.summary.id]} />}
              </div>
            );
          })}
        </div>
        {cases !== undefined && cases.length === 0 && <p className="px-5 py-4 text-ink2">{query === '' ? 'No case yet.' : 'No case matches the query.'}</p>}
      </div>
    </div>
  );
}

function Group({ name, cases, instances }: { readonly name: string; readonly cases: number; readonly instances: number }) {
  return (
    <h2 className="flex items-center border-b border-rule bg-page2 px-5 py-1.5 text-xs font-semibold text-ink2">
      {name || 'No module'}
      <span className="ml-auto font-normal">
        {countOf(cases, 'case')} · {countOf(instances, 'instance')}
      </span>
    </h2>
  );
}

function CaseLine({ project, summary, counts, isCurrent, mark }: { readonly project: string; readonly summary: CaseSummary; readonly counts: CaseCounts | undefined; readonly isCurrent: boolean; readonly mark: CaseMark | undefined }) {
  const instances = counts?.instances ?? Math.max(1, summary.rows);
  const notes = [
    `${countOf(summary.steps, 'step')}${counts === undefined ? '' : `, ${counts.steps.toLocaleString()} opened`}`,
    summary.rows > 0 ? countOf(summary.rows, 'row') : 'no rows',
    ...(instances > 1 && instances !== summary.rows ? [`${instances.toLocaleString()} instances`] : []),
    ...(summary.estimate === null ? [] : [`${(summary.estimate * instances).toLocaleString()} min`]),
    ...(summary.state === 'draft' ? [] : [summary.state]),
    ...summary.tags,
  ];
  return (
    <Link
      to={{ pathname: address.cases(project, summary.id), search: window.location.search }}
      aria-current={isCurrent ? 'page' : undefined}
      className={`flex gap-2.5 border-b border-rule py-2 pl-5 pr-5 ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}
    >
      <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{summary.id}</span>
      <span className="min-w-0 flex-1">
        <span className={`block leading-[1.35] ${isCurrent ? 'font-semibold' : ''}`}>{summary.title}</span>
        <span className="block truncate text-xs text-ink2">{notes.join(' · ')}</span>
      </span>
      {mark !== undefined && (
        <span className="pt-0.5" title={MARK[mark].word}>
          <StandingShape standing={MARK[mark].standing} />
          <span className="sr-only">{MARK[mark].word}</span>
        </span>
      )}
    </Link>
  );
}

function grouped(cases: readonly CaseSummary[], counts: Readonly<Record<string, CaseCounts>>): Line[] {
  const modules = new Map<string, CaseSummary[]>();
  for (const summary of cases) {
    const group = modules.get(summary.module);
    if (group === undefined) modules.set(summary.module, [summary]);
    else group.push(summary);
  }
  return [...modules].flatMap(([name, group]): Line[] => [
    { kind: 'group', name, cases: group.length, instances: group.reduce((n, c) => n + (counts[c.id]?.instances ?? Math.max(1, c.rows)), 0) },
    ...group.map((summary): Line => ({ kind: 'case', summary })),
  ]);
}

function keyOf(line: Line | undefined): string {
  return line === undefined ? '' : line.kind === 'group' ? `group ${line.name}` : line.summary.id;
}

function problemSentence(problem: QueryProblem): string {
  if (problem.code === 'query_field_unknown') return `A query knows no ${problem.field}: — it knows ${QUERY_FIELDS.join(', ')}.`;
  return `has: asks for rows, steps, expected, covers, tags or estimate, not ${problem.value}.`;
}
