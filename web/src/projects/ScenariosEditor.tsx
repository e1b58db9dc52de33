import { EXECUTIONS, type Execution } from '@caderno/core/cases';
import type { ScenarioExecution } from '@caderno/core/scenarios';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { EXECUTION_WORD, TextBox, Select, NumberBox } from '../look/index.ts';

interface Props {
  readonly execution: ScenarioExecution;
  readonly canEdit: boolean;
  readonly onChange: (execution: ScenarioExecution) => void;
}

/** Which tag tells how a scenario is run, and how long one takes. */
export function ScenariosEditor({ execution, canEdit, onChange }: Props) {
  return (
    <div className="mt-2 space-y-2 text-sm">
      <p className="flex flex-wrap items-center gap-2">
        Scenarios with the tag
        <TagField tag={execution.tag} canEdit={canEdit} onChange={(tag) => onChange({ ...execution, tag })} />
        are
        <Select aria-label="What the tag says" disabled={!canEdit} value={execution.marks} options={EXECUTIONS.map((value) => ({ value, name: EXECUTION_WORD[value].toLowerCase() }))} onChange={(marks) => onChange({ ...execution, marks })} />
        <span className="text-ink2">{EXECUTION_WORD[other(execution.marks)].toLowerCase()} are those without it</span>
      </p>
      <p className="flex flex-wrap items-center gap-2">
        One takes
        {EXECUTIONS.map((e) => (
          <label key={e} className="flex items-center gap-1.5">
            <MinutesField label={`Minutes, ${EXECUTION_WORD[e].toLowerCase()}`} minutes={execution.minutes[e]} canEdit={canEdit} onChange={(minutes) => onChange({ ...execution, minutes: { ...execution.minutes, [e]: minutes } })} />
            min {EXECUTION_WORD[e].toLowerCase()}
          </label>
        ))}
        <span className="text-ink2">where no tag such as <span className="font-mono">@5min</span> says so</span>
      </p>
    </div>
  );
}

function other(execution: Execution): Execution {
  return EXECUTIONS.find((e) => e !== execution) ?? execution;
}

/** A tag that is half written is not the project's yet. */
function TagField({ tag, canEdit, onChange }: { readonly tag: string; readonly canEdit: boolean; readonly onChange: (tag: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    const name = (typed ?? '').trim().replace(/^@+/, '');
    if (name !== '' && !/[\s@#]/u.test(name)) onChange(`@${name}`);
    setTyped(null);
  };
  return <TextBox aria-label="Tag" className="w-36 font-mono" maxLength={LIMITS.name} readOnly={!canEdit} value={typed ?? tag} onChange={setTyped} onBlur={() => typed !== null && leave()} />;
}

function MinutesField({ label, minutes, canEdit, onChange }: { readonly label: string; readonly minutes: number | null; readonly canEdit: boolean; readonly onChange: (minutes: number | null) => void }) {
  return <NumberBox aria-label={label} min={0} max={LIMITS.minutes} withParts className="w-20" readOnly={!canEdit} placeholder="?" value={minutes} onChange={onChange} />;
}
