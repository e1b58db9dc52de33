import type { DataSetId } from '@caderno/core/artefacts';
import { rowsTakenFrom, withRowsTaken, type FeatureContent, type PartId } from '@caderno/core/scenarios';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, tellFailure, useSummaries } from '../../api/index.ts';
import { PickArtefact, someIds } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Dialog, TextButton, countOf } from '../../look/index.ts';
import type { Editing } from '../../versions/index.ts';

interface Props {
  readonly content: FeatureContent;
  readonly part: PartId;
  /** Which of its tables of examples, from 0. */
  readonly at: number;
  readonly update: Editing<FeatureContent>['update'];
}

/** Takes the rows of a data set as the examples; where it has changed since, they are taken again. */
export function RowsOfSet({ content, part, at, update }: Props) {
  const { project } = useFrame();
  const sets = useSummaries(project, 'dataSet').data ?? [];
  const [choosing, setChoosing] = useState(false);
  const taken = rowsTakenFrom(content, part, at);
  const set = sets.find((s) => s.id === taken?.id);
  const take = async (id: DataSetId): Promise<void> => {
    const read = await call('readArtefact', { params: { project, id } }).catch(tellFailure);
    if (read?.kind !== 'dataSet') return;
    const ids = someIds();
    update((c) => withRowsTaken(c, part, at, { id, version: read.summary.version, parameters: read.content.parameters, rows: read.content.rows }, ids()));
    setChoosing(false);
  };
  return (
    <>
      {taken !== null && (
        <span className="text-ink2">
          Rows of{' '}
          <Link to={address.artefact(project, taken.id)} className="font-mono underline decoration-rule2">
            {taken.id}
          </Link>{' '}
          v{taken.version}
          {set !== undefined && set.version > taken.version && (
            <span className="text-brick">
              , which has changed since. <TextButton onClick={() => void take(set.id)}>take them again</TextButton>
            </span>
          )}
        </span>
      )}
      <TextButton onClick={() => setChoosing(true)}>Rows of a data set</TextButton>
      {choosing && (
        <Dialog title="Rows of a data set" onClose={() => setChoosing(false)}>
          <p className="text-sm text-ink2">They take the place of the rows that stand here. Columns that only the outline has stay behind them, and rows of the same name keep what they say there. A comment in the file says where they come from.</p>
          <PickArtefact label="The data set" placeholder="a data set …" offered={sets.filter((s) => s.state !== 'withdrawn').map((s) => ({ id: s.id, title: s.title, aside: countOf(s.rows, 'row') }))} onPick={(id) => void take(id)} className="mt-3" />
        </Dialog>
      )}
    </>
  );
}
