import type { DataSetId, SharedId } from '@caderno/core/artefacts';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import type { KindAndContent } from '@caderno/core/kinds';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { dataSetIdSchema, sharedIdSchema } from '@caderno/contract';
import { useCallback } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { KeptModule, Spread, address, useFrame } from '../frame/index.ts';
import { useListCommands, useListing } from '../listing/index.ts';
import { Button, Empty } from '../look/index.ts';
import { DataSetIndex } from './dataSets/DataSetIndex.tsx';
import { DataSetPage } from './dataSets/DataSetPage.tsx';
import { UseDragging } from '../steps/index.ts';
import { SharedIndex } from '../reuse/index.ts';
import { SharedPage } from './SharedPage.tsx';

const NEW_SHARED = { kind: 'shared', content: { ...EMPTY_SHARED, title: 'New shared steps' } } as const;
const NEW_DATA_SET = { kind: 'dataSet', content: { ...EMPTY_DATA_SET, title: 'New data set' } } as const;
const SHARED_TITLES = { next: 'Open the next shared steps', before: 'Open the shared steps before', make: 'New shared steps' };
const DATA_SET_TITLES = { next: 'Open the next data set', before: 'Open the data set before', make: 'New data set' };

/** What is written once and used in many places: the list at the left, what is open at the right. */
export function SharedChapter() {
  const asked = useParams().shared;
  const shared = sharedIdSchema.safeParse(asked).data ?? null;
  const dataSet = dataSetIdSchema.safeParse(asked).data ?? null;
  const [search] = useSearchParams();
  return dataSet !== null || (shared === null && search.get('left') === 'data') ? <DataSets current={dataSet} /> : <SharedStepsList current={shared} />;
}

function SharedStepsList({ current }: { readonly current: SharedId | null }) {
  const { project, canEdit } = useFrame();
  const listing = useListing('shared');
  const add = useAdd(project, NEW_SHARED);
  useListCommands(listing.ids, current, add, SHARED_TITLES);
  return (
    <UseDragging>
      <Spread
        chapter="shared"
        leftShare={30}
        leftLabel="Shared steps"
        rightLabel="What is open"
        left={<SharedIndex listing={listing} current={current} onNew={add} heading={<Headings left="shared" />} />}
        right={
          current !== null ? (
            <KeptModule id={current}>
              <SharedPage id={current} />
            </KeptModule>
          ) : (
            <Empty title="Written once, used in many cases" action={canEdit && <Button look="accent" onClick={add}>Write shared steps</Button>}>
              Steps that stand in many cases are written here. In a case, / puts them in; a run of steps can be taken out of a case into shared steps.
            </Empty>
          )
        }
      />
    </UseDragging>
  );
}

function DataSets({ current }: { readonly current: DataSetId | null }) {
  const { project, canEdit } = useFrame();
  const listing = useListing('dataSet');
  const add = useAdd(project, NEW_DATA_SET);
  useListCommands(listing.ids, current, add, DATA_SET_TITLES);
  return (
    <Spread
      chapter="shared"
      leftShare={30}
      leftLabel="Data sets"
      rightLabel="What is open"
      left={<DataSetIndex listing={listing} current={current} onNew={add} heading={<Headings left="dataSet" />} />}
      right={
        current !== null ? (
          <KeptModule id={current}>
            <DataSetPage id={current} />
          </KeptModule>
        ) : (
          <Empty title="Rows that many cases take" action={canEdit && <Button look="accent" onClick={add}>Make a data set</Button>}>
            A data set is a table of named rows. A case takes them and runs with each; a condition can say what its columns mean, so that one sees what each row shows.
          </Empty>
        )
      }
    />
  );
}

/** Makes an artefact and opens it. */
function useAdd(project: string, empty: Extract<KindAndContent, { kind: 'shared' | 'dataSet' }>): () => void {
  const makeAndOpen = useMakeAndOpen(project);
  return useCallback(() => void makeAndOpen(empty), [empty, makeAndOpen]);
}

/** The two lists of the chapter. */
function Headings({ left }: { readonly left: 'shared' | 'dataSet' }) {
  const { project } = useFrame();
  const steps = useSummaries(project, 'shared').data?.length;
  const dataSets = useSummaries(project, 'dataSet').data?.length;
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
