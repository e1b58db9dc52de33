import type { CaseContent } from '@caderno/core/cases';
import { memo, type ReactNode } from 'react';
import { useModules } from '../api/index.ts';
import { ChooseOwner, Tags, TextInput, usePriorityChoices } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { CASE_KIND_WORD, Choose, EXECUTION_WORD, options, locale } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

type Update = Editing<CaseContent>['update'];

interface Props {
  readonly content: CaseContent;
  readonly instances: bigint;
  readonly canEdit: boolean;
  readonly update: Update;
}

/** What is looked at every day of a case, on the line of its state. */
export const DailyChips = memo(function DailyChips({ content, canEdit, update }: Omit<Props, 'instances'>) {
  const { project } = useFrame();
  const modules = useModules(project);
  return (
    <>
      <TextInput label="Module" bare placeholder="No module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
      <Choose label="Priority" showLabel value={content.priority} options={usePriorityChoices(project, content.priority)} onChange={(priority) => update((c) => ({ ...c, priority }))} disabled={!canEdit} />
      <ChooseOwner owner={content.owner} canEdit={canEdit} onChange={(owner) => update((c) => ({ ...c, owner }))} />
    </>
  );
}, isSame);

/** What is rarely changed and is not as it usually is, in a few words. */
export function rareWords({ kind, execution, estimate, tags }: CaseContent, instances: bigint): string[] {
  return [...(kind === 'procedure' ? [] : [CASE_KIND_WORD[kind]]), ...(execution === 'byHand' ? [] : [EXECUTION_WORD[execution]]), ...(estimate === null ? [] : [`${(estimate * Number(instances)).toLocaleString(locale())} min`]), ...tags];
}

/** What is rarely changed. */
export const RareChips = memo(function RareChips({ content, instances, canEdit, update, children }: Props & { readonly children?: ReactNode }) {
  return (
    <>
      <Choose label="Kind" value={content.kind} options={options(CASE_KIND_WORD)} onChange={(kind) => update((c) => ({ ...c, kind }))} disabled={!canEdit} />
      <Choose label="Run" value={content.execution} options={options(EXECUTION_WORD)} onChange={(execution) => update((c) => ({ ...c, execution }))} disabled={!canEdit} />
      <Estimate label={content.kind === 'charter' ? 'Time box, minutes' : 'Minutes'} value={content.estimate} instances={instances} canEdit={canEdit} onChange={(estimate) => update((c) => ({ ...c, estimate }))} />
      <Tags tags={content.tags} canEdit={canEdit} onChange={(tags) => update((c) => ({ ...c, tags }))} />
      {children}
    </>
  );
}, isSame);

const SHOWN = ['module', 'kind', 'execution', 'priority', 'owner', 'estimate', 'tags'] as const;

/** Writing a step is no reason to draw them again. */
type Drawn = Omit<Props, 'instances'> & { readonly instances?: bigint; readonly children?: ReactNode };

function isSame(before: Drawn, after: Drawn): boolean {
  return before.children === after.children && before.instances === after.instances && before.canEdit === after.canEdit && before.update === after.update && SHOWN.every((field) => before.content[field] === after.content[field]);
}

function Estimate({ label, value, instances, canEdit, onChange }: { readonly label: string; readonly value: number | null; readonly instances: bigint; readonly canEdit: boolean; readonly onChange: (value: number | null) => void }) {
  const set = (text: string): void => {
    const minutes = Number(text.replace(',', '.'));
    if (text.trim() === '') onChange(null);
    else if (Number.isFinite(minutes) && minutes >= 0 && minutes <= 100_000) onChange(minutes);
  };
  return (
    <span className="inline-flex items-center gap-1.5 text-xs text-ink2">
      <TextInput label={label} value={value === null ? '' : String(value)} readOnly={!canEdit} onChange={set} inputMode="numeric" />
      {value !== null && instances > 1n && `× ${instances.toLocaleString(locale())} = ${(value * Number(instances)).toLocaleString(locale())} min`}
    </span>
  );
}
