import type { FeatureId } from '@caderno/core/artefacts';
import type { FeatureContent, FeatureOutline, PartId } from '@caderno/core/scenarios';
import { memo } from 'react';
import { Margin, MarginNote } from '../artefacts/index.ts';
import { OwnFields } from '../fields/index.ts';
import { Remarks } from '../remarks/index.ts';
import { InSuites } from '../suiteMembers/index.ts';
import type { Editing } from '../versions/index.ts';
import { FeatureProblems } from './FeatureProblems.tsx';
import { FeatureRequirements } from './FeatureRequirements.tsx';
import { ScenarioCovers } from './ScenarioCovers.tsx';
import { TwiceNote } from './twice/TwiceNote.tsx';
import type { CoveredScenarios } from './useCoveredScenarios.ts';

interface Props {
  readonly id: FeatureId;
  readonly version: number;
  /** As it was when nobody typed for a moment. */
  readonly content: FeatureContent;
  readonly outline: FeatureOutline;
  readonly covered: CoveredScenarios;
  /** The part in which the cursor stands. */
  readonly here: PartId | undefined;
  readonly canEdit: boolean;
  readonly update: Editing<FeatureContent>['update'];
  /** Shows a line of the text; must be stable. */
  readonly onShow: (line: number) => void;
}

/** What is told beside a feature. A key in its text does not wait for it. */
export const FeatureMargin = memo(function FeatureMargin({ id, version, content, outline, covered, here: partId, canEdit, update, onShow }: Props) {
  const here = content.parts.find((part) => part.id === partId);
  return (
    <Margin>
      <Remarks id={id} version={version} content={content} />
      <FeatureProblems id={id} path={content.path} outline={outline} onShow={onShow} />
      <ScenarioCovers id={id} content={content} covered={covered} here={here} canEdit={canEdit} update={update} onShow={(part) => onShow(lineOf(content, part.id))} />
      {canEdit && <TwiceNote content={content} outline={outline} update={update} />}
      <MarginNote title="Requirements">
        <FeatureRequirements id={id} content={content} here={here} canEdit={canEdit} update={update} />
      </MarginNote>
      <InSuites id={id} />
      <OwnFields place="margin" id={id} kind="feature" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
    </Margin>
  );
});

/** The line of a feature in which a part begins, from 0. */
export function lineOf({ parts }: FeatureContent, id: PartId): number {
  return parts.slice(0, parts.findIndex((p) => p.id === id)).reduce((sum, part) => sum + part.lines.length, 0);
}
