import { isUse, type CaseContent } from '@caderno/core/cases';
import { addProposedRows, fillGap, itemsToMake, untoldRows, type ConditionCoverage, type DesignCondition, type ProposedRow, type Untold } from '@caderno/core/coverage';
import { useMemo } from 'react';
import { GapPreview, untoldWords } from '../liveCoverage/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';

interface Props {
  readonly content: CaseContent;
  readonly condition: DesignCondition;
  readonly coverage: ConditionCoverage;
  readonly update: (change: (content: CaseContent) => CaseContent) => void;
  readonly onClose: () => void;
}

/** Adds to the case that is open the rows that would show what is missing, after a preview. */
export function FillGap({ content, condition, coverage, update, onClose }: Props) {
  const filling = useMemo(() => fillGap(condition.content, itemsToMake(coverage)), [condition, coverage]);
  const why = useMemo(() => whyOnlyLinked(content, condition, filling.rows), [condition, content, filling]);
  const add = (): void => {
    update((c) => addProposedRows(c, condition, filling.rows, () => crypto.randomUUID().slice(0, 8)));
    onClose();
  };
  return (
    <Dialog title={`Generate rows for ${condition.id} ${condition.content.title}`} onClose={onClose} wide>
      <GapPreview condition={condition.content} filling={filling} />
      {why !== null && filling.rows.length > 0 && <p className="mt-3 text-sm text-ochre-ink">These rows would be linked only: {untoldWords(why)}</p>}
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={filling.rows.length === 0} onClick={add}>
          Add {countOf(filling.rows.length, 'row')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

/** Why the rows, once added, would show nothing yet; null when they would, or when called cases may still speak for them. */
function whyOnlyLinked(content: CaseContent, condition: DesignCondition, rows: readonly ProposedRow[]): Untold | null {
  let made = 0;
  const filled = addProposedRows(content, condition, rows, () => `made${(made += 1)}`);
  const cover = filled.covers.find((c) => c.id === condition.id);
  if (cover === undefined || filled.steps.some(isUse)) return null;
  return untoldRows(filled, filled.rows.slice(content.rows.length), cover, condition.content)[0]?.why ?? null;
}
