import { scenarioId, type FeatureId, type RequirementId } from '@caderno/core/artefacts';
import { EMPTY_FEATURE, fileNameFor, freePath, withText } from '@caderno/core/scenarios';
import type { FeatureSummary, RequirementSummary } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { MarginNote, someIds, useChangeMany, useMakeAndOpen } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { LinkFeatures } from './LinkFeatures.tsx';

/** The features that are written for a requirement; more are linked, or one is begun. */
export function FeatureLines({ requirement }: { readonly requirement: RequirementSummary }) {
  const { project, canEdit } = useFrame();
  const [linking, setLinking] = useState(false);
  const write = useWriteFeature(requirement);
  const unlink = useUnlink(requirement.id);
  const all = useSummaries(project, 'feature').data?.filter((f) => f.state !== 'withdrawn') ?? [];
  const features = all.filter((f) => f.requirements.includes(requirement.id));
  if (features.length === 0 && (!canEdit || requirement.type === 'heading')) return null;
  return (
    <MarginNote title="Features">
      <ul>
        {features.map((feature) => (
          <li key={feature.id}>
            <Link className="text-ink underline decoration-rule2" to={address.scenarios(project, feature.id)}>
              <span className="font-mono text-xs">{feature.id}</span> {feature.title}
            </Link>
            {', '}
            <WhichScenarios feature={feature} requirement={requirement.id} />
            {canEdit && (
              <>
                {' '}
                <TextButton aria-label={`Unlink ${feature.id}`} onClick={() => unlink(feature.id)}>
                  unlink
                </TextButton>
              </>
            )}
          </li>
        ))}
      </ul>
      {canEdit && (
        <p className="mt-1 flex flex-wrap gap-x-3">
          {all.length > features.length && <TextButton onClick={() => setLinking(true)}>link features</TextButton>}
          <TextButton onClick={() => void write()}>write a feature</TextButton>
        </p>
      )}
      {linking && <LinkFeatures requirement={requirement} onClose={() => setLinking(false)} />}
    </MarginNote>
  );
}

/** How many scenarios a feature has; where only some are written for the requirement, the way to each. */
function WhichScenarios({ feature, requirement }: { readonly feature: FeatureSummary; readonly requirement: RequirementId }) {
  const { project } = useFrame();
  const some = feature.scenariosFor.find((r) => r.requirement === requirement)?.scenarios;
  if (some === undefined) return countOf(feature.scenarios.length, 'scenario');
  return (
    <>
      only{' '}
      {some.map((number, i) => (
        <span key={number}>
          {i > 0 && ', '}
          <Link className="underline decoration-rule2" title={feature.scenarios.find((s) => s.number === number)?.name} to={address.covering(project, scenarioId(feature.id, number))}>
            {number}
          </Link>
        </span>
      ))}
    </>
  );
}

function useUnlink(id: RequirementId): (feature: FeatureId) => void {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  return (feature) => void changeMany({ of: { ids: [feature] }, done: { kind: 'edit', edit: { kind: 'writtenFor', requirement: id, seenVersion: 1, belongs: false, tags: '' } }, detail: `no longer written for ${id}` });
}

/** Begins a feature for the requirement, under a file name that nobody has. */
function useWriteFeature({ id, title, module, version }: RequirementSummary): () => Promise<void> {
  const { project } = useFrame();
  const makeAndOpen = useMakeAndOpen(project);
  const taken = useSummaries(project, 'feature').data?.map((f) => f.path) ?? [];
  return async () => {
    const path = freePath('', fileNameFor(title), taken);
    const content = withText({ ...EMPTY_FEATURE, path, module, requirements: [{ id, seenVersion: version, parts: [] }] }, `Feature: ${title.replace(/\s+/g, ' ').trim()}\n\n  Scenario: \n    Given \n`, someIds()());
    await makeAndOpen({ kind: 'feature', content });
  };
}
