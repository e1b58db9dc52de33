import type { SharedId } from '@caderno/core/artefacts';
import { useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { ListPage, type LineLook, type Listing } from '../listing/index.ts';
import { STATE_WORD, countOf } from '../look/index.ts';
import { DraggableUse } from '../steps/index.ts';

interface Props {
  readonly listing: Listing<'shared'>;
  readonly current: SharedId | null;
  /** Absent: none is made here, and what is open at the right stays open. */
  readonly onNew?: () => void;
  /** What stands above the list. */
  readonly heading: ReactNode;
}

/** The index of shared steps; each can be dragged among the steps of what is open. */
export function SharedIndex({ listing, current, onNew, heading }: Props) {
  const { project, canEdit } = useFrame();
  const look = useMemo<LineLook<'shared'>>(
    () => ({
      notes: ({ head }) => [countOf(head.steps, 'step'), ...(head.parameters.length === 0 ? [] : [head.parameters.map((p) => `<${p}>`).join(' ')]), ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]), ...head.tags],
      wrap: (listed, line) => (
        <DraggableUse id={listed.head.id} enabled={canEdit}>
          {line}
        </DraggableUse>
      ),
    }),
    [canEdit],
  );
  return (
    <ListPage kind="shared" listing={listing} current={current} heading={heading} look={look} staysOpen={onNew === undefined} {...(onNew === undefined ? {} : { onNew })}>
      <p className="flex flex-wrap gap-x-4 border-t border-rule px-5 py-3 text-sm">
        <Link className="underline decoration-rule2" to={address.reuse(project)}>
          Show graph
        </Link>
        <Link className="underline decoration-rule2" to={address.alike(project)}>
          written twice
        </Link>
      </p>
    </ListPage>
  );
}
