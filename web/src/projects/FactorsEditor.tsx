import { ruleProblems, type Environment, type EnvironmentFactor } from '@caderno/core/configurations';
import { typedList } from '@caderno/core/values';
import { LIMITS } from '@caderno/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { goOnInAdded } from '../focus/index.ts';
import { IconButton, TextButton, constraintProblemSentence, TextBox, TextArea, Labelled } from '../look/index.ts';

interface Props {
  readonly environment: Environment;
  readonly canEdit: boolean;
  readonly onChange: (environment: Environment) => void;
}

const GRID = 'grid grid-cols-[minmax(8rem,1fr)_minmax(14rem,2.4fr)_1.75rem] items-start gap-2';

/** What configurations are made of: factors with their values, and what of them does not go together. */
export function FactorsEditor({ environment, canEdit, onChange }: Props) {
  const { factors, rules } = environment;
  const problems = ruleProblems(environment);
  const set = (id: string, part: Partial<EnvironmentFactor>): void => onChange({ ...environment, factors: factors.map((f) => (f.id === id ? { ...f, ...part } : f)) });
  return (
    <div className="mt-2 text-sm">
      {factors.map((factor) => (
        <div key={factor.id} className={`${GRID} border-t border-rule py-1`}>
          <TextBox aria-label={`Name of the factor ${factor.name}`} aria-invalid={factor.name === '' || factors.some((f) => f !== factor && f.name === factor.name)} readOnly={!canEdit} value={factor.name} maxLength={LIMITS.name} onChange={(text) => set(factor.id, { name: text })} className="w-full" />
          <Values factor={factor} canEdit={canEdit} onChange={(values) => set(factor.id, { values })} />
          {canEdit && <IconButton label={`Remove the factor ${factor.name}`} icon={<X size={13} aria-hidden="true" />} onClick={() => onChange({ ...environment, factors: factors.filter((f) => f !== factor) })} />}
        </div>
      ))}
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange({ ...environment, factors: [...factors, { id: crypto.randomUUID().slice(0, 8), name: freeName(factors), values: [] }] }))}>
          add a factor
        </TextButton>
      )}
      {factors.length > 0 && (
        <Labelled label="what does not go together, a rule a line, as in: if role = reader then device = telephone" pale className="mt-2">
          <TextArea rows={2} readOnly={!canEdit} value={rules} maxLength={LIMITS.definition} onChange={(text) => onChange({ ...environment, rules: text })} className="w-full font-mono text-xs [field-sizing:content]" />
        </Labelled>
      )}
      {problems.map(({ rule, problem }) => (
        <p key={rule} role="alert" className="text-xs text-brick">
          “{rule}”: {constraintProblemSentence(problem)}
        </p>
      ))}
    </div>
  );
}

/** Values are typed with commas between them, or pasted from a column; they are read when one leaves the field. */
function Values({ factor, canEdit, onChange }: { readonly factor: EnvironmentFactor; readonly canEdit: boolean; readonly onChange: (values: readonly string[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange(typedList(typed));
    setTyped(null);
  };
  return <TextArea aria-label={`Values of ${factor.name}`} rows={1} placeholder="values, commas between" readOnly={!canEdit} value={typed ?? factor.values.join(', ')} onChange={setTyped} onBlur={leave} className="w-full resize-none [field-sizing:content]" />;
}

function freeName(factors: readonly EnvironmentFactor[]): string {
  let number = factors.length + 1;
  while (factors.some((f) => f.name === `factor ${number}`)) number += 1;
  return `factor ${number}`;
}
