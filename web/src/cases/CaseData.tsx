import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import { rowsChosen, withRowsRunning, type CaseContent, type ColumnFilter, type Parameter, type ParameterId, type Row, type RowId } from '@caderno/core/cases';
import type { ConditionCoverage, DesignCondition } from '@caderno/core/coverage';
import { allRows, rowsToRun, type Constants, type Library } from '@caderno/core/shared';
import { memo, useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useCommands, type Command } from '../frame/index.ts';
import { DataFiles, DataGrid, MakeRows, RedundantRows, UnknownValues, rowShows, useColumnChecks, useGained } from '../data/index.ts';
import { Section, TextButton, countOf, locale } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';
import { RowsRun } from './RowsRun.tsx';
import { SharedRows } from './SharedRows.tsx';
import { ShareRows } from './ShareRows.tsx';

interface Props {
  readonly id: CaseId;
  readonly content: CaseContent;
  readonly library: Library;
  readonly constants: Constants;
  readonly instances: bigint;
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly mostItems: number;
  readonly chosen: RowId | null;
  readonly onChoose: (row: RowId | null) => void;
  readonly canEdit: boolean;
  readonly update: Editing<CaseContent>['update'];
  readonly onRename: (parameter: Parameter, name: string) => void;
  readonly onRemoveParameter: (id: ParameterId) => void;
  readonly onDeclare: (name: string) => void;
}

const NO_ROWS: readonly Row[] = [];

/** The data of a case: rows of its own, those of a data set, which of them run, and the ways to more. */
export const CaseData = memo(function CaseData(props: Props) {
  const { id, content, library, constants, instances, conditions, coverages, mostItems, chosen, onChoose, canEdit, update, onRename, onRemoveParameter, onDeclare } = props;
  const { rows, parameters, data, runs } = content;
  const [making, setMaking] = useState(false);
  const [ownWanted, setOwnWanted] = useState(false);
  const source = useMemo(() => ({ rows, parameters, data, runs }), [data, parameters, rows, runs]);
  const all = useMemo(() => allRows(source, library), [library, source]);
  const shared = useMemo(() => (data === null ? NO_ROWS : all.filter((row) => !rows.includes(row))), [all, data, rows]);
  const running = useMemo(() => (runs.kind === 'all' ? null : new Set(rowsToRun(source, library).map((r) => r.id))), [library, runs, source]);
  // What rows show may come a moment later: a key in a long table is not to wait for it.
  const settled = useDeferredValue(all);
  const shows = useMemo(() => rowShows(id, settled, coverages), [coverages, id, settled]);
  const checks = useColumnChecks(content.covers, conditions);
  const run = useCallback((ids: readonly RowId[]) => update((c) => ({ ...c, runs: { kind: 'chosen', rows: ids } })), [update]);
  const runFiltered = useCallback((filters: readonly ColumnFilter[]) => update((c) => ({ ...c, runs: { kind: 'filter', filters } })), [update]);
  const gained = useGained(id, content, conditions, coverages, mostItems);
  const hasOwn = data === null || rows.length > 0 || ownWanted;
  const grid = {
    parameters,
    shows,
    chosen,
    onChoose,
    running,
    runnable: all,
    constants,
    checks,
    onRename,
    onRemoveColumn: onRemoveParameter,
    onAddColumn: onDeclare,
    ...(canEdit ? { onRunFilter: runFiltered } : {}),
    ...(canEdit ? { onRun: run } : {}),
  };
  const part = useRef<HTMLDivElement>(null);
  useCommands(useGoToData(part));
  return (
    <div ref={part}>
      <Section
        title="Data"
        aside={`${countOf(all.length, 'row')}${runningWords(all, running)} · ${instances === 1n ? '1 instance' : `${instances.toLocaleString(locale())} instances`}`}
        actions={
          <span className="flex items-baseline gap-3 text-xs">
            {canEdit && <TextButton onClick={() => setMaking(true)}>Generate rows</TextButton>}
            <DataFiles name={`${id} ${content.title}`} rows={rows} all={all} parameters={parameters} canEdit={canEdit} update={update} />
          </span>
        }
      >
        <RowsRun rows={all} running={rowsChosen(all, parameters, runs).length} choice={runs} parameters={parameters} canEdit={canEdit} onChange={(choice) => update((c) => ({ ...c, runs: choice }))} />
        {data !== null && (
          <SharedRows data={data} content={content} library={library} canEdit={canEdit} update={update}>
            <DataGrid label={`Rows of ${data.set}`} rows={shared} {...grid} canEdit={false} update={noUpdate} />
          </SharedRows>
        )}
        {hasOwn ? (
          <>
            {data !== null && <p className="mb-1 mt-3 text-xs text-ink2">Rows of its own besides</p>}
            <DataGrid label="Data rows" rows={rows} {...grid} canEdit={canEdit} update={update} />
          </>
        ) : (
          canEdit && (
            <TextButton className="mt-1 text-xs" onClick={() => setOwnWanted(true)}>
              add rows of its own
            </TextButton>
          )
        )}
        <UnknownValues rows={all} carried={content.covers} conditions={conditions} canEdit={canEdit} />
        <RedundantRows rows={rows} shows={shows} canEdit={canEdit} update={update} />
        {canEdit && data === null && <ShareRows content={content} update={update} />}
        {making && (
          <MakeRows
            rows={all}
            parameters={parameters}
            checks={checks}
            gained={gained}
            estimate={content.estimate}
            onAdd={(made) =>
              update((c) => ({
                ...c,
                rows: [...c.rows, ...made],
                runs: withRowsRunning(
                  c.runs,
                  made.map((row) => row.id),
                ),
              }))
            }
            onClose={() => setMaking(false)}
          />
        )}
      </Section>
    </div>
  );
});

/** From wherever one writes in the case to its first cell. */
function useGoToData(part: React.RefObject<HTMLDivElement | null>): readonly Command[] {
  return useMemo(
    () => [
      {
        id: 'go-data',
        title: 'Go to the data',
        keys: '$mod+Enter',
        keyLabel: 'Ctrl Enter',
        whileTyping: true,
        run: () => part.current?.querySelector<HTMLElement>('[data-cell][tabindex="0"]')?.focus(),
      },
    ],
    [part],
  );
}

function noUpdate(): void {
  throw new Error('Rows of a data set are changed in the data set');
}

function runningWords(all: readonly Row[], running: ReadonlySet<RowId> | null): string {
  const run = running === null ? all.filter((r) => !r.aside).length : running.size;
  return run === all.length ? '' : `, ${run} run`;
}
