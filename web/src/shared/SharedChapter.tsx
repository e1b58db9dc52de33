import type { ArtefactId } from '@caderno/core/artefacts';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { dataSetIdSchema, sharedIdSchema } from '@caderno/contract';
import { useCallback, useMemo } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty } from '../look/index.ts';
import { DataSetIndex } from './dataSets/DataSetIndex.tsx';
import { DataSetPage } from './dataSets/DataSetPage.tsx';
import { UseDragging } from '../steps/index.ts';
import { SharedIndex } from '../reuse/index.ts';
import { SharedPage } from './SharedPage.tsx';

/** What is written once and used in many places: the list at the left, what is open at the right. */
export function SharedChapter() {
  const { project, canEdit } = useFrame();
  const asked = useParams().shared;
  const current = sharedIdSchema.safeParse(asked).data ?? null;
  const dataSet = dataSetIdSchema.safeParse(asked).data ?? null;
  const [search] = useSearchParams();
  const left = dataSet !== null || (current === null && search.get('left') === 'data') ? 'dataSet' : 'shared';
  const list = useSummaries(project, 'shared').data;
  const dataSets = useSummaries(project, 'dataSet').data;
  const create = useCreate(project);
  const navigate = useNavigate();
  const add = useCallback(async () => {
    const id = await create(left === 'shared' ? { kind: 'shared', content: { ...EMPTY_SHARED, title: 'New shared steps' } } : { kind: 'dataSet', content: { ...EMPTY_DATA_SET, title: 'New data set' } });
    if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
  }, [create, left, navigate, project]);
  const commands = useMemo<Command[]>(() => {
    const open = (step: number) => (): void => {
      const ids: readonly ArtefactId[] = (left === 'shared' ? list : dataSets)?.map((s) => s.id) ?? [];
      const id = ids[ids.findIndex((known) => known === (current ?? dataSet)) + step];
      if (id !== undefined) void navigate(address.artefact(project, id));
    };
    return [
      { id: 'next-shared', title: left === 'shared' ? 'Open the next shared steps' : 'Open the next data set', keys: 'j', keyLabel: 'j', run: open(1) },
      { id: 'previous-shared', title: left === 'shared' ? 'Open the shared steps before' : 'Open the data set before', keys: 'k', keyLabel: 'k', run: open(-1) },
      ...(canEdit ? [{ id: 'new-shared', title: left === 'shared' ? 'New shared steps' : 'New data set', keys: 'n', keyLabel: 'n', changes: true, run: () => void add() }] : []),
    ];
  }, [add, canEdit, current, dataSet, dataSets, left, list, navigate, project]);
  useCommands(commands);
  return (
    <UseDragging>
      <Spread
        chapter="shared"
        leftShare={30}
        leftLabel={left === 'shared' ? 'Shared steps' : 'Data sets'}
        rightLabel="What is open"
        left={left === 'shared' ? <SharedIndex list={list} current={current} onNew={() => void add()} heading={<Headings left={left} steps={list?.length} dataSets={dataSets?.length} />} /> : <DataSetIndex list={dataSets} current={dataSet} onNew={() => void add()} heading={<Headings left={left} steps={list?.length} dataSets={dataSets?.length} />} />}
        right={
          dataSet !== null ? (
            <DataSetPage id={dataSet} />
          ) : current === null && left === 'dataSet' ? (
            <Empty title="Rows that many cases take" action={canEdit && <Button look="accent" onClick={() => void add()}>Make a data set</Button>}>
              A data set is a table of named rows. A case takes them and runs with each; a condition can say what its columns mean, so that one sees what each row shows.
            </Empty>
          ) : current === null ? (
            <Empty title="Written once, used in many cases" action={canEdit && <Button look="accent" onClick={() => void add()}>Write shared steps</Button>}>
              Steps that stand in many cases are written here. In a case, / puts them in; a run of steps can be taken out of a case into shared steps.
            </Empty>
          ) : (
            <SharedPage id={current} />
          )
        }
      />
    </UseDragging>
  );
}

/** The two lists of the chapter. */
function Headings({ left, steps, dataSets }: { readonly left: 'shared' | 'dataSet'; readonly steps: number | undefined; readonly dataSets: number | undefined }) {
  const { project } = useFrame();
  const lists = [
    { kind: 'shared', name: 'Shared steps', count: steps, to: address.shared(project) },
    { kind: 'dataSet', name: 'Data sets', count: dataSets, to: `${address.shared(project)}?left=data` },
  ] as const;
  return (
    <h1 className="flex items-baseline gap-4 font-serif text-xl font-semibold">
      {lists.map(({ kind, name, count, to }) => (
        <Link key={kind} to={to} aria-current={kind === left ? 'true' : undefined} className={kind === left ? '' : 'text-base font-normal text-ink2 underline decoration-rule2'}>
          {name} <span className="font-sans text-xs font-normal text-ink2">{count ?? ''}</span>
        </Link>
      ))}
    </h1>
  );
}
