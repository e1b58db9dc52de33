import { readConstraint, type CombinationModel } from '@caderno/core/conditions';
import type { ItemCoverage } from '@caderno/core/coverage';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Choose, TextButton, countOf, combinationProblemSentence, constraintProblemSentence, constraintsNamed, TickIn, IconButton } from '../../look/index.ts';
import { useBeside } from '../../worker/index.ts';
import { MOST_EXPLAINED, checkCombination, findCannotOccur } from '../checking/modelCheck.ts';
import { ConstraintField } from './ConstraintField.tsx';
import { FactorGrid } from './FactorGrid.tsx';
import { PairMatrix } from './PairMatrix.tsx';
import { addConstraint, setGroup, withConstraint, withoutConstraint } from './combinationEdits.ts';

interface Props {
  readonly model: CombinationModel;
  readonly items: readonly ItemCoverage[];
  /** The model has more items than the project allows: what depends on them is not computed. */
  readonly refused: boolean;
  readonly canEdit: boolean;
  readonly onChange: (change: (model: CombinationModel) => CombinationModel) => void;
}

/** A combination: factors with their values, what may go together, and how much of it is shown. */
export function CombinationEditor({ model, items, refused, canEdit, onChange }: Props) {
  const judged = useBeside(model, checkCombination);
  const problems = judged?.output.flatMap((p) => combinationProblemSentence(p, judged.input) ?? []) ?? [];
  return (
    <div>
      <FactorGrid model={model} canEdit={canEdit} onChange={onChange} />
      <Constraints model={model} canEdit={canEdit} onChange={onChange} />
      <Group model={model} canEdit={canEdit} onChange={onChange} />
      {problems.length > 0 && (
        <div role="status">
          <ul aria-label="What is wrong with the combination" className="mt-3 space-y-0.5 text-sm text-brick">
            {problems.slice(0, 8).map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
            {problems.length > 8 && <li className="text-ink2">and {countOf(problems.length - 8, 'more', 'more')}</li>}
          </ul>
        </div>
      )}
      {!refused && <PairMatrix model={model} items={items} />}
      {!refused && model.constraints.length > 0 && <Infeasible model={model} />}
    </div>
  );
}

function Constraints({ model, canEdit, onChange }: Pick<Props, 'model' | 'canEdit' | 'onChange'>) {
  const [added, setAdded] = useState(false);
  if (model.constraints.length === 0 && !canEdit) return null;
  return (
    <section aria-label="Constraints" className="mt-5">
      <h4 className="text-xs text-ink2">What may go together</h4>
      <ol className="mt-1 space-y-1.5">
        {model.constraints.map((constraint, i) => {
          const read = readConstraint(constraint.text, model.factors);
          return (
            <li key={constraint.id}>
              <div className="flex items-center gap-2">
                <span className="w-4 text-right font-mono text-xs text-ink2">{i + 1}</span>
                <ConstraintField label={`Constraint ${i + 1}`} value={constraint.text} factors={model.factors} readOnly={!canEdit} autoFocus={added && i === model.constraints.length - 1} onChange={(text) => onChange(withConstraint(constraint.id, text))} />
                {canEdit && (
                  <IconButton label={`Remove constraint ${i + 1}`} title="Remove" onClick={() => onChange(withoutConstraint(constraint.id))} icon={<X size={14} aria-hidden="true" />} />
                )}
              </div>
              {read.kind === 'problem' && constraint.text.trim() !== '' && <p className="ml-6 text-xs text-brick">{constraintProblemSentence(read.problem)} It does not count until it can be read.</p>}
            </li>
          );
        })}
      </ol>
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={() => (setAdded(true), onChange(addConstraint))}>
          add a constraint
        </TextButton>
      )}
    </section>
  );
}

const SIZES = [2, 3, 4, 5, 6];

/** Factors that are combined more than the rest. */
function Group({ model, canEdit, onChange }: Pick<Props, 'model' | 'canEdit' | 'onChange'>) {
  const [opened, setOpened] = useState(false);
  const group = model.groups[0];
  if (group === undefined && !opened) {
    if (!canEdit || model.factors.length < 3) return null;
    return (
      <TextButton className="mt-2 text-xs" onClick={() => setOpened(true)}>
        combine some factors more than the rest
      </TextButton>
    );
  }
  const chosen = group?.factors ?? [];
  const size = group?.size ?? 3;
  return (
    <fieldset className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm" disabled={!canEdit}>
      <legend className="text-xs text-ink2">Combined more than the rest</legend>
      <Choose label="How many at a time" value={String(size)} options={SIZES.map((n) => ({ value: String(n), name: `${n} at a time` }))} onChange={(n) => onChange(setGroup(chosen, Number(n)))} disabled={!canEdit} />
      {model.factors.map((f) => (
        <TickIn key={f.id} item={f.id} of={chosen} onChange={(some) => onChange(setGroup(some, Math.max(size, 2)))}>
          {f.name}
        </TickIn>
      ))}
    </fieldset>
  );
}

/** Combinations that no row can contain, with the constraints that rule them out. */
function Infeasible({ model: typed }: { readonly model: CombinationModel }) {
  const [open, setOpen] = useState(false);
  const found = useBeside(typed, findCannotOccur);
  if (found === null) return null;
  const { input: model, output: { count, first } } = found;
  if (count === 0) return null;
  return (
    <div className="mt-3 text-sm">
      <TextButton onClick={() => setOpen(!open)} aria-expanded={open}>
        {countOf(count, 'combination')} cannot occur
      </TextButton>
      <span className="text-xs text-ink2"> and {count === 1 ? 'is' : 'are'} no coverage {count === 1 ? 'item' : 'items'}</span>
      {open && (
        <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
          {first.map(({ tuple, constraints }) => {
            const words = tuple.factors.map((f, i) => `${model.factors[f]?.name ?? ''} ${model.factors[f]?.values[tuple.values[i] ?? -1]?.value ?? ''}`).join(' × ');
            return (
              <li key={words} className="border-b border-rule py-0.5">
                {words} <span className="text-xs text-ink2">{constraintsNamed(constraints, model)}</span>
              </li>
            );
          })}
          {count > MOST_EXPLAINED && <li className="py-0.5 text-ink2">and {count - MOST_EXPLAINED} more</li>}
        </ul>
      )}
    </div>
  );
}
