import type { DataSetId } from '@caderno/core/artefacts';
import type { ReactNode } from 'react';
import { ListPage, type LineLook, type Listing } from '../../listing/index.ts';
import { STATE_WORD, countOf } from '../../look/index.ts';

interface Props {
  readonly listing: Listing<'dataSet'>;
  readonly current: DataSetId | null;
  readonly onNew: () => void;
  readonly heading: ReactNode;
}

const LOOK: LineLook<'dataSet'> = {
  notes: ({ head }) => [
    countOf(head.rows, 'row'),
    ...(head.parameters.length === 0 ? [] : [head.parameters.map((p) => `<${p}>`).join(' ')]),
    ...(head.serves.length === 0 ? [] : [`serves ${head.serves.join(', ')}`]),
    ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]),
    ...head.tags,
  ],
};

/** The index of data sets. */
export function DataSetIndex({ listing, current, onNew, heading }: Props) {
  return <ListPage kind="dataSet" listing={listing} current={current} heading={heading} look={LOOK} onNew={onNew} />;
}
