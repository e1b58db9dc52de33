import type { CaseId } from '@caderno/core/artefacts';
import type { CaseCounts, CaseMark, Standing } from '@caderno/core/coverage';
import { parseQuery, QUERY_FIELDS, type QueryProblem } from '@caderno/core/find';
import type { CaseSummary } from '@caderno/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCoverageRows, useModules, useSummaries, type RowsKnown } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, CannotBeRead, SelectMark, StandingShape, countOf, drawnLines, usePrinting, useSelection, type Selection } from '../look/index.ts';
import { DraggableUse } from '../steps/index.ts';
import { CaseSelectionBar } from './CaseSelectionBar.tsx';

interface Props {
  readonly cases: readonly CaseSummary[] | undefined;
  readonly current: CaseId | null;
  readonly query: string;
  readonly onQuery: (query: string) => void;
  readonly onNew: () => void;
  /** What stands above the list. */
  readonly heading: ReactNode;
}

type Line = { readonly kind: 'group'; readonly name: string; readonly cases: number; readonly instances: number } | { readonly kind: 'case'; readonly summary: CaseSummary };

const MARK: Record<CaseMark, { readonly standing: Standing; readonly word: string }> = {
  shows: { standing: 'shown', word: 'shows items' },
  linked: { standing: 'linked', word: 'linked, shows nothing yet' },
  nothing: { standing: 'gap', word: 'covers nothing' },
};

/** The index of cases, grouped by module, filtered by a query. */
export function CaseIndex({ cases, current, query, onQuery, onNew, heading }: Props) {
  const { project, canEdit } = useFrame();
  const known = useCoverageRows(project);
  const lines = useMemo(() => grouped(cases ?? [], known), [cases, known]);
  const ids = useMemo(() => lines.flatMap((l) => (l.kind === 'case' ? [l.summary.id] : [])), [lines]);
  const selection = useSelection(ids);
  const { problems } = parseQuery(query);
  const absent = useAbsent(project, query);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: (i) => (lines[i]?.kind === 'group' ? 31 : 54), getItemKey: (i) => keyOf(lines[i]), overscan: 10 });
  const at = lines.findIndex((l) => l.kind === 'case' && l.summary.id === current);
  useEffect(() => {
    if (at >= 0) rows.scrollToIndex(at, { align: 'auto' });
  }, [at, rows]);
  return (
    <div className="flex h-full flex-col">
      <header className="px-5 pb-3 pt-5">
        {heading}
        <div className="mt-2 flex gap-2">
          <input aria-label="Filter the cases by a query" placeholder="Words, or fields as state:draft" value={query} onChange={(e) => onQuery(e.target.value)} aria-describedby="query-note" className="field-boxed min-w-0 flex-1 bg-page2" />
          {canEdit && <Button onClick={onNew}>New</Button>}
        </div>
        <p id="query-note" className="text-xs text-brick">
          {[...problems.map(problemSentence), ...absent].join(' ')}
        </p>
      </header>
      {selection.chosen.length > 0 && <CaseSelectionBar chosen={selection.chosen} onDone={selection.clear} />}
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto border-t border-rule" role="list" aria-label="Cases">
        <div data-lines className="relative" style={{ height: rows.getTotalSize() }}>
          {drawnLines(rows, printing).map((row) => {
            const line = lines[row.index];
            if (line === undefined) return null;
            return (
              <div key={row.key} ref={rows.measureElement} data-index={row.index} className="absolute inset-x-0" style={{ top: row.start }} role="listitem">
                {line.kind === 'group' ? <Group {...line} /> : <CaseLine project={project} canEdit={canEdit} selection={selection} summary={line.summary} counts={known?.counts(line.summary.id)} isCurrent={line.summary.id === current} mark={known?.mark(line.summary)} />}
              </div>
            );
          })}
        </div>
        {cases !== undefined && cases.length === 0 && <p className="px-5 py-4 text-ink2">{query === '' ? 'No case yet.' : 'No case matches the query.'}</p>}
      </div>
    </div>
  );
}

/** What the query names and the project does not have. */
function useAbsent(project: string, query: string): string[] {
  const { terms } = parseQuery(query);
  const named = terms.flatMap((t) => (t.kind === 'field' ? [t] : []));
  const asks = (field: string): string[] => named.flatMap((t) => (t.field === field ? [t.value] : []));
  const conditions = useSummaries(project, 'condition', 'state:any').data;
  const modules = useModules(project);
  return [
    ...(conditions === undefined ? [] : asks('covers').flatMap((id) => (conditions.some((c) => c.id === id.toUpperCase()) ? [] : [`There is no condition ${id.toUpperCase()}.`]))),
    ...(conditions === undefined ? [] : asks('module').flatMap((name) => (modules.some((m) => m.toLowerCase().includes(name.toLowerCase())) ? [] : [`No module is called “${name}”.`]))),
  ];
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

interface LineProps {
  readonly project: string;
  readonly canEdit: boolean;
  readonly selection: Selection<CaseId>;
  readonly summary: CaseSummary;
  readonly counts: CaseCounts | undefined;
  readonly isCurrent: boolean;
  readonly mark: CaseMark | undefined;
}

/** A case in the index: a click opens it, space or its box selects it, a pull drags it among the steps of another. */
function CaseLine({ project, canEdit, selection, summary, counts, isCurrent, mark }: LineProps) {
  const isSelected = selection.has(summary.id);
  const instances = counts?.instances ?? Math.max(1, summary.rows);
  const notes = [
    `${countOf(summary.steps, 'step')}${counts === undefined || counts.steps === summary.steps ? '' : `, ${counts.steps.toLocaleString()} opened`}`,
    summary.dataSet !== null ? `rows of ${summary.dataSet}${summary.rows > 0 ? ` and ${summary.rows} more` : ''}` : summary.rows > 0 ? countOf(summary.rows, 'row') : 'no rows',
    ...(instances === 0 ? ['none runs'] : instances !== Math.max(1, summary.rows) ? [countOf(instances, 'instance')] : []),
    ...(summary.estimate === null ? [] : [`${(summary.estimate * instances).toLocaleString()} min`]),
    ...(summary.state === 'draft' ? [] : [summary.state]),
    ...(summary.caseKind === 'charter' ? ['charter'] : []),
    ...(summary.execution === 'automated' ? ['automated'] : []),
    ...summary.tags,
  ];
  return (
    <DraggableUse id={summary.id} enabled={canEdit}>
      <div className={`group flex border-b border-rule ${isSelected ? 'bg-blue-wash' : ''} ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
        <SelectMark name={summary.id} selected={isSelected} shown={selection.chosen.length > 0} onSelect={(_, through) => selection.toggle(summary.id, through)} className="ml-0.5 mr-0.5 mt-2" />
        <Link
          draggable={false}
          to={{ pathname: address.cases(project, summary.id), search: window.location.search }}
          aria-current={isCurrent ? 'page' : undefined}
          onKeyDown={(event) => {
            if (event.key !== ' ') return;
            event.preventDefault();
            selection.toggle(summary.id, event.shiftKey);
          }}
          className="flex min-w-0 flex-1 gap-2.5 py-2 pr-5"
        >
          <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{summary.id}</span>
          <span className="min-w-0 flex-1">
            <span className={`block leading-[1.35] ${isCurrent ? 'font-semibold' : ''}`}>{summary.title}</span>
            <span className="block truncate text-xs text-ink2">{summary.broken ? <CannotBeRead /> : notes.join(' · ')}</span>
          </span>
          {mark !== undefined && (
            <span className="pt-0.5" title={MARK[mark].word}>
              <StandingShape standing={MARK[mark].standing} />
              <span className="sr-only">{MARK[mark].word}</span>
            </span>
          )}
        </Link>
      </div>
    </DraggableUse>
  );
}

function grouped(cases: readonly CaseSummary[], known: RowsKnown | null): Line[] {
  const modules = new Map<string, CaseSummary[]>();
  for (const summary of cases) {
    const group = modules.get(summary.module);
    if (group === undefined) modules.set(summary.module, [summary]);
    else group.push(summary);
  }
  return [...modules].flatMap(([name, group]): Line[] => [
    { kind: 'group', name, cases: group.length, instances: group.reduce((n, c) => n + (known?.counts(c.id)?.instances ?? Math.max(1, c.rows)), 0) },
    ...group.map((summary): Line => ({ kind: 'case', summary })),
  ]);
}

function keyOf(line: Line | undefined): string {
  return line === undefined ? '' : line.kind === 'group' ? `group ${line.name}` : line.summary.id;
}

function problemSentence(problem: QueryProblem): string {
  if (problem.code === 'query_field_unknown') return `There is no field ${problem.field}: the fields are ${QUERY_FIELDS.join(', ')}.`;
  if (problem.known.length > 0) return `${problem.field}:${problem.value} can match nothing: it is one of ${problem.known.join(', ')}.`;
  return problem.field === 'covers' ? `“${problem.value}” is no condition: write covers:K-3.` : `“${problem.value}” is no id: write id:C-3.`;
}
