import { artefactId, type ConditionId, type DataSetId } from '@caderno/core/artefacts';
import { parameterId, removeParameter, type ParameterId, type RowId } from '@caderno/core/cases';
import { DEFAULT_MOST_ITEMS } from '@caderno/core/conditions';
import type { DesignChange } from '@caderno/core/coverage';
import { asCase, fromCase, type DataSetContent } from '@caderno/core/dataSets';
import type { Used } from '@caderno/core/shared';
import { useDeferredValue, useMemo, useState } from 'react';
import { useDesign, useModules } from '../../api/index.ts';
import { Loading, Margin, MarginNote, TextInput } from '../../artefacts/index.ts';
import { useCoveredDesign, useLiveCoverage } from '../../liveCoverage/index.ts';
import { DataFiles, DataGrid, MakeRows, RedundantRows, UnknownValues, rowShows, useColumnChecks, useGained } from '../../data/index.ts';
import { OwnFields } from '../../fields/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Section, TextButton, countOf } from '../../look/index.ts';
import { useConstants } from '../../steps/index.ts';
import { PinnedUsers, Reach, UsedBy } from '../../reuse/index.ts';
import { Remarks } from '../../remarks/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../../versions/index.ts';
import { Columns } from './Columns.tsx';
import { Serves } from './Serves.tsx';

/** A data set: what its rows are for, the rows, and who takes them. */
export function DataSetPage({ id }: { readonly id: DataSetId }) {
  const { data, error } = useEditable('dataSet', id);
  return data === undefined ? <Loading error={error} /> : <DataSet key={id} artefact={data} />;
}

const NOTHING_USED: ReadonlyMap<string, Used> = new Map();

/** What a data set shows is judged as of a case; this number is no case's. */
const AS_CASE = artefactId('case', 0);

function DataSet({ artefact }: { readonly artefact: EditableArtefact<'dataSet'> }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('dataSet', artefact);
  const { content, update } = editing;
  const { id, state } = artefact.summary;
  const modules = useModules(project);
  const [chosen, setChosen] = useState<RowId | null>(null);
  const [making, setMaking] = useState(false);
  const { conditions, coverages, mostItems } = useServed(id, content);
  const { rows, parameters } = content;
  // What rows show may come a moment later: a key in a long table is not to wait for it.
  const settled = useDeferredValue(rows);
  const shows = useMemo(() => rowShows(AS_CASE, settled, coverages), [coverages, settled]);
  const checks = useColumnChecks(content.serves, conditions);
  const columns = useColumns(update);
  const constants = useConstants();
  const gained = useGained(AS_CASE, useMemo(() => asCase(content), [content]), conditions, coverages, mostItems);
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead summary={artefact.summary} state={state} editing={editing}>
        <TextInput label="Module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
        <span>Data set</span>
      </ArtefactHead>
      {editing.dirty && <Reach id={id} />}
      <dl className="mt-4 grid grid-cols-[6.5rem_1fr] text-sm">
        <dt className="pt-px text-xs leading-5 text-ink2">Purpose</dt>
        <dd>
          <textarea aria-label="Purpose" rows={2} value={content.purpose} readOnly={!canEdit} placeholder="What its rows are for" onChange={(e) => update((c) => ({ ...c, purpose: e.target.value }))} className="field-quiet w-full resize-y" />
        </dd>
      </dl>
      <Section
        title="Rows"
        aside={`${countOf(rows.length, 'row')}, ${countOf(parameters.length, 'column')}`}
        actions={
          <span className="flex items-baseline gap-3 text-xs">
            {canEdit && <TextButton onClick={() => setMaking(true)}>Generate rows</TextButton>}
            <DataFiles name={`${id} ${content.title}`} rows={rows} all={rows} parameters={parameters} canEdit={canEdit} update={update} />
          </span>
        }
      >
        <DataGrid label="Data rows" rows={rows} parameters={parameters} canEdit={canEdit} update={update} shows={shows} chosen={chosen} onChoose={setChosen} running={null} runnable={rows} constants={constants} checks={checks} onRename={columns.rename} onRemoveColumn={columns.remove} onAddColumn={columns.add} />
        <UnknownValues rows={rows} carried={content.serves} conditions={conditions} canEdit={canEdit} />
        <RedundantRows rows={rows} shows={shows} canEdit={canEdit} update={update} />
      </Section>
      <div className="mt-4 flex gap-5 max-narrow:flex-col">
        <div className="min-w-0 flex-1">
          <Section title="Columns" aside={countOf(parameters.length, 'column')}>
            <Columns parameters={parameters} checks={checks} canEdit={canEdit} update={update} />
          </Section>
        </div>
        <Margin>
          <Remarks id={id} version={artefact.summary.version} content={content} />
          <MarginNote title="Serves">
            <Serves id={id} content={content} conditions={conditions} coverages={coverages} canEdit={canEdit} update={update} />
          </MarginNote>
          <OwnFields place="margin" id={id} kind="dataSet" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
          <MarginNote title="Used by">
            <UsedBy id={id} side="users" />
            <PinnedUsers id={id} version={artefact.summary.version} />
          </MarginNote>
        </Margin>
      </div>
      {making && <MakeRows rows={rows} parameters={parameters} checks={checks} gained={gained} estimate={null} onAdd={(made) => update((c) => ({ ...c, rows: [...c.rows, ...made] }))} onClose={() => setMaking(false)} />}
    </article>
  );
}

/** The conditions a data set serves, and what of each its rows show alone. */
function useServed(id: DataSetId, content: DataSetContent) {
  const { project } = useFrame();
  const { title, parameters, rows, serves } = useDeferredValue(content);
  const around = useCoveredDesign(project, useDesign(project, { dataSet: id }).data, serves, NOTHING_USED);
  const design = useMemo(() => (around === undefined ? undefined : { ...around, cases: [], library: [] }), [around]);
  const change = useMemo((): DesignChange => ({ kind: 'case', id: AS_CASE, case: { id: AS_CASE, state: 'draft', version: 1, content: asCase({ title, parameters, rows, serves }) } }), [parameters, rows, serves, title]);
  const coverages = useLiveCoverage(design, change);
  const conditions = useMemo(() => new Map<ConditionId, NonNullable<typeof design>['conditions'][number]>(design?.conditions.map((c) => [c.id, c])), [design]);
  return { conditions, coverages, mostItems: design?.mostItems ?? DEFAULT_MOST_ITEMS };
}

/** Columns are known by their ids to whoever takes them: a name changes here alone. */
function useColumns(update: Editing<DataSetContent>['update']) {
  return useMemo(
    () => ({
      rename: ({ id }: { readonly id: ParameterId }, name: string) => update((c) => (c.parameters.some((p) => p.name === name) ? c : { ...c, parameters: c.parameters.map((p) => (p.id === id ? { ...p, name } : p)) })),
      remove: (id: ParameterId) => update((c) => fromCase(c, removeParameter(asCase(c), id))),
      add: (name: string) => {
        const id = parameterId(crypto.randomUUID().slice(0, 8));
        update((c) => (c.parameters.some((p) => p.name === name) ? c : { ...c, parameters: [...c.parameters, { id, name, type: 'text', default: '', description: '' }] }));
      },
    }),
    [update],
  );
}
