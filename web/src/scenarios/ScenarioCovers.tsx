import type { FeatureId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import type { FeatureContent, FeaturePart } from '@caderno/core/scenarios';
import { useCallback } from 'react';
import { MarginNote } from '../artefacts/index.ts';
import { Covers } from '../covers/index.ts';
import { TextButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';
import type { CoveredScenarios } from './useCoveredScenarios.ts';

interface Props {
  readonly id: FeatureId;
  readonly content: FeatureContent;
  readonly covered: CoveredScenarios;
  /** The part in which the cursor stands. */
  readonly here: FeaturePart | undefined;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
  readonly onShow: (part: FeaturePart) => void;
}

/** The conditions that the scenario at the cursor covers, and what it shows of them; elsewhere those of all scenarios. */
export function ScenarioCovers({ id, content, covered: { conditions, coverages, caseOf }, here, canEdit, update, onShow }: Props) {
  const scenario = here?.kind === 'scenario' ? here : undefined;
  const asCase = scenario === undefined ? null : caseOf(scenario.id);
  const partId = scenario?.id;
  const cover = useCallback(
    (change: (content: CaseContent) => CaseContent) =>
      update((c) => ({ ...c, parts: c.parts.map((part) => (part.id === partId && asCase !== null ? { ...part, covers: change({ ...asCase.content, covers: part.covers }).covers } : part)) })),
    [asCase, partId, update],
  );
  if (scenario === undefined) return <AllCovers content={content} onShow={onShow} />;
  return (
    <MarginNote title={scenario.number === 0 ? 'Covers' : `Covers, ${id}/${scenario.number}`}>
      {asCase === null ? <p>A new scenario gets its number when it is saved. Then it can cover conditions.</p> : <Covers of="scenario" id={id} content={asCase.content} conditions={conditions} coverages={coverages} canEdit={canEdit} update={cover} onFill={null} />}
    </MarginNote>
  );
}

function AllCovers({ content, onShow }: Pick<Props, 'content' | 'onShow'>) {
  const covering = content.parts.filter((part) => part.covers.length > 0);
  return (
    <MarginNote title="Covers">
      {covering.length === 0 ? (
        <p>Nothing yet: put the cursor into a scenario, and link the conditions it is to show.</p>
      ) : (
        <ul>
          {covering.map((part) => (
            <li key={part.id}>
              <TextButton data-on-paper onClick={() => onShow(part)}>Scenario {part.number}</TextButton> {part.covers.map((c) => c.id).join(', ')}
            </li>
          ))}
        </ul>
      )}
    </MarginNote>
  );
}
