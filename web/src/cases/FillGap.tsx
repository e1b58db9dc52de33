import type { CaseContent } from '@caderno/core/cases';
import { addProposedRows, fillGap, itemsToMake, type ConditionCoverage, type DesignCondition } from '@caderno/core/coverage';
import { useMemo } from 'react';
import { GapPreview } from '../coverage/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';

interface Props {
  readonly condition: DesignCondition;
  readonly coverage: ConditionCoverage;
  readonly update: (change: (content: CaseContent) => CaseContent) => void;
  readonly onClose: () => void;
}

/** Adds to the case that is open the rows that would show what is missing, after a preview. */
export function FillGap({ condition, coverage, update, onClose }: Props) {
  const filling = useMemo(() => fillGap(condition.content, itemsToMake(coverage)), [condition, coverage]);
  const add = (): void => {
    update((c) => addProposedRows(c, condition, filling.rows, () => crypto.randomUUID().slice(0, 8)));
    onClose();
  };
  return (
    <Dialog title={`Fill the gap of ${condition.id} ${condition.content.title}`} onClose={onClose} wide>
      <GapPreview condition={condition.content} filling={filling} />
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={filling.rows.length === 0} onClick={add}>
          Add {countOf(filling.rows.length, 'row')}
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
