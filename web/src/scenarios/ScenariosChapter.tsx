import type { FeatureId } from '@caderno/core/artefacts';
import { EMPTY_FEATURE, folderOf, freePath, withText } from '@caderno/core/scenarios';
import { featureIdSchema } from '@caderno/contract';
import { useCallback } from 'react';
import { useParams } from 'react-router';
import type { ListedHead } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { KeptModule, Spread, useFrame, useModuleBeside } from '../frame/index.ts';
import { useListCommands, useListing } from '../listing/index.ts';
import { Button, Empty } from '../look/index.ts';
import { FeatureIndex } from './FeatureIndex.tsx';
import { FeaturePage } from './FeaturePage.tsx';
import { useAskedScenarios } from './useAskedScenarios.ts';

const TITLES = { next: 'Open the next feature', before: 'Open the feature before', make: 'New feature' };

/** Features with their scenarios at the left, the feature that is open at the right. */
export function ScenariosChapter() {
  const { canEdit } = useFrame();
  const current = featureIdSchema.safeParse(useParams().feature).data ?? null;
  const asked = useAskedScenarios();
  const only = useCallback((listed: ListedHead<'feature'>) => !asked.filtered || listed.head.scenarios.some(asked.test), [asked]);
  const listing = useListing('feature', 'own', only);
  const add = useAdd(listing.list, current);
  useListCommands(listing.ids, current, add, TITLES);
  return (
    <Spread
      chapter="scenarios"
      leftShare={31}
      leftLabel="Index of features"
      rightLabel="Feature"
      left={<FeatureIndex listing={listing} current={current} asked={asked} onNew={add} />}
      right={
        current !== null ? (
          <KeptModule id={current}>
            <FeaturePage key={current} id={current} />
          </KeptModule>
        ) : (
          <Empty title="Scenarios in Gherkin" action={canEdit && <Button look="accent" onClick={add}>Write a feature</Button>}>
            A feature is a file of scenarios: Given what holds, When something happens, Then what can be seen. Write one here, or open one at the left.
          </Empty>
        )
      }
    />
  );
}

/** Makes a feature beside the one that is open, and opens it. */
function useAdd(list: readonly ListedHead<'feature'>[] | undefined, current: FeatureId | null): () => void {
  const { project } = useFrame();
  const moduleBeside = useModuleBeside();
  const makeAndOpen = useMakeAndOpen(project);
  return useCallback(() => {
    const beside = list?.find((l) => l.id === current);
    const path = freePath(folderOf(beside?.head.path ?? ''), 'new', list?.map((l) => l.head.path) ?? []);
    const content = withText({ ...EMPTY_FEATURE, path, module: moduleBeside(beside?.head.module) }, 'Feature: New feature\n\n  Scenario: \n    Given \n', () => crypto.randomUUID().slice(0, 8));
    void makeAndOpen({ kind: 'feature', content });
  }, [current, list, makeAndOpen, moduleBeside]);
}
