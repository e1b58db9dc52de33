import { kindOfId, type ArtefactKind } from '@caderno/core/artefacts';
import type { ReactNode } from 'react';
import { FirstSteps } from './FirstSteps.tsx';
import { LastChanges } from './LastChanges.tsx';
import { Unfinished } from './Unfinished.tsx';

interface Props {
  /** What to do here, in a sentence. */
  readonly children: ReactNode;
  /** The kinds the chapter holds. */
  readonly kinds: readonly ArtefactKind[];
}

/** The right page while nothing of an index is open: the first steps in a young project, what is unfinished, what changed last. */
export function ChapterOverview({ children, kinds }: Props) {
  return (
    <div className="px-7 pb-12 pt-6">
      <p className="max-w-prose text-ink2">{children}</p>
      <FirstSteps />
      <Unfinished kinds={kinds} />
      <LastChanges isShown={(id) => kinds.includes(kindOfId(id))} />
    </div>
  );
}
