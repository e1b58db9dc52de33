import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { itemsToMake, type ConditionCoverage, type Design } from '@caderno/core/coverage';
import { useState } from 'react';
import { useDesign } from '../../api/index.ts';
import { Loading } from '../../artefacts/index.ts';
import { useLiveCoverage } from '../../liveCoverage/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Dialog } from '../../look/index.ts';
import { WriteCases, type ToWrite } from './WriteCases.tsx';

interface Props {
  readonly requirement: RequirementId;
  readonly conditions: readonly ConditionId[];
  readonly onClose: () => void;
}

/** Writes cases for all that is missing in some conditions of a requirement. */
export function WriteMissing({ requirement, conditions, onClose }: Props) {
  const { project } = useFrame();
  const { data: design, error } = useDesign(project, { requirement });
  const coverages = useLiveCoverage(design, null);
  if (design === undefined || coverages.size === 0) {
    return (
      <Dialog title="Write cases" onClose={onClose}>
        <Loading error={error} />
      </Dialog>
    );
  }
  return <Missing design={design} coverages={coverages} conditions={conditions} onClose={onClose} />;
}

function Missing({ design, coverages, conditions, onClose }: Pick<Props, 'conditions' | 'onClose'> & { readonly design: Design; readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage> }) {
  // What is written stays what was asked for, also while others save.
  const [toWrite] = useState(() =>
    design.conditions.flatMap((condition): ToWrite[] => {
      const coverage = conditions.includes(condition.id) ? coverages.get(condition.id) : undefined;
      const items = coverage === undefined ? [] : itemsToMake(coverage);
      return items.length === 0 ? [] : [{ condition, items }];
    }),
  );
  return <WriteCases toWrite={toWrite} onClose={onClose} />;
}
