import type { ConditionId, FeatureId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import type { DesignChange } from '@caderno/core/coverage';
import { scenariosAsCases, type FeatureContent, type FeatureOutline, type FeaturePart } from '@caderno/core/scenarios';
import type { Used } from '@caderno/core/shared';
import { useCallback, useMemo } from 'react';
import { useDesign } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { Covers } from '../covers/index.ts';
import { useFrame } from '../frame/index.ts';
import { useCoveredDesign, useLiveCoverage } from '../liveCoverage/index.ts';
import { TextButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly id: FeatureId;
  readonly content: FeatureContent;
  /** The content a moment ago, and what it says. */
  readonly settled: FeatureContent;
  readonly outline: FeatureOutline;
  /** The part in which the cursor stands. */
  readonly here: FeaturePart | undefined;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
  readonly onShow: (part: FeaturePart) => void;
}

const NOTHING_USED: ReadonlyMap<string, Used> = new Map();

/** The conditions that the scenario at the cursor covers, and what it shows of them; elsewhere those of all scenarios. */
export function ScenarioCovers({ id, content, settled, outline, here, canEdit, update, onShow }: Props) {
  const { conditions, coverages, cases } = useCovered(id, settled, outline);
  const scenario = here?.kind === 'scenario' ? here : undefined;
  const asCase = cases.find((s) => s.part === scenario?.id);
  const partId = scenario?.id;
  const cover = useCallback(
    (change: (content: CaseContent) => CaseContent) =>
      update((c) => ({ ...c, parts: c.parts.map((part) => (part.id === partId && asCase !== undefined ? { ...part, covers: change({ ...asCase.content, covers: part.covers }).covers } : part)) })),
    [asCase, partId, update],
  );
  if (scenario === undefined) return <AllCovers content={content} onShow={onShow} />;
  return (
    <MarginNote title={scenario.number === 0 ? 'Covers' : `Covers, ${id}/${scenario.number}`}>
      {asCase === undefined ? <p>A new scenario gets its number when it is saved. Then it can cover conditions.</p> : <Covers of="scenario" id={id} content={asCase.content} conditions={conditions} coverages={coverages} canEdit={canEdit} update={cover} onFill={null} />}
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
              <TextButton onClick={() => onShow(part)}>Scenario {part.number}</TextButton> {part.covers.map((c) => c.id).join(', ')}
            </li>
          ))}
        </ul>
      )}
    </MarginNote>
  );
}

/** The conditions that scenarios of a feature cover, judged with what is being written. */
function useCovered(id: FeatureId, deferred: FeatureContent, outline: FeatureOutline) {
  const { project } = useFrame();
  const cases = useMemo(() => scenariosAsCases(id, deferred, outline), [deferred, id, outline]);
  const linked = useMemo(() => [...new Map(deferred.parts.flatMap((p) => p.covers).map((c) => [c.id, c])).values()], [deferred.parts]);
  const design = useCoveredDesign(project, useDesign(project, { feature: id }).data, linked, NOTHING_USED);
  const change = useMemo((): DesignChange => ({ kind: 'feature', id, scenarios: cases.flatMap((s) => (s.content.covers.length === 0 ? [] : [{ id: s.id, state: 'draft', version: 1, content: s.content }])) }), [cases, id]);
  const coverages = useLiveCoverage(design, change);
  const conditions = useMemo(() => new Map<ConditionId, NonNullable<typeof design>['conditions'][number]>(design?.conditions.map((c) => [c.id, c])), [design]);
  return { cases, coverages, conditions };
}
