import type { SuiteId } from '@caderno/core/artefacts';
import { EMPTY_SUITE } from '@caderno/core/suites';
import { suiteIdSchema } from '@caderno/contract';
import { useCallback } from 'react';
import { useParams } from 'react-router';
import type { ListedHead } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { KeptModule, Spread, useFrame, useModuleBeside } from '../frame/index.ts';
import { useListCommands, useListing } from '../listing/index.ts';
import { Button, Empty } from '../look/index.ts';
import { SuiteIndex } from './SuiteIndex.tsx';
import { SuitePage } from './SuitePage.tsx';

const TITLES = { next: 'Open the next suite', before: 'Open the suite before', make: 'New suite' };

/** Suites in their folders at the left, with what they show and take; the one that is open at the right. */
export function SuitesChapter() {
  const { canEdit } = useFrame();
  const current = suiteIdSchema.safeParse(useParams().suite).data ?? null;
  const listing = useListing('suite');
  const add = useAdd(listing.list, current);
  useListCommands(listing.ids, current, add, TITLES);
  return (
    <Spread
      chapter="suites"
      leftShare={28}
      leftLabel="Index of suites"
      rightLabel="Suite"
      left={<SuiteIndex listing={listing} current={current} onNew={add} />}
      right={
        current !== null ? (
          <KeptModule id={current}>
            <SuitePage key={current} id={current} />
          </KeptModule>
        ) : (
          <Empty title="Cases chosen for a purpose" action={canEdit && <Button look="accent" onClick={add}>Make a suite</Button>}>
            A suite is an ordered choice of cases and scenarios: for an hour of smoke testing, for a release, for a module after a change. It says at once what it shows, what it misses and how long it takes.
          </Empty>
        )
      }
    />
  );
}

/** Makes a suite beside the one that is open, and opens it. */
function useAdd(list: readonly ListedHead<'suite'>[] | undefined, current: SuiteId | null): () => void {
  const { project } = useFrame();
  const moduleBeside = useModuleBeside();
  const makeAndOpen = useMakeAndOpen(project);
  return useCallback(() => {
    const beside = list?.find((l) => l.id === current)?.head;
    void makeAndOpen({ kind: 'suite', content: { ...EMPTY_SUITE, title: 'New suite', folder: beside?.folder ?? '', module: moduleBeside(beside?.module) } });
  }, [current, list, makeAndOpen, moduleBeside]);
}
