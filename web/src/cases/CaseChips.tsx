import type { CaseContent } from '@caderno/core/cases';
import { ChevronDown } from 'lucide-react';
import { memo, useState, type ReactNode } from 'react';
import { useMembers, useModules } from '../api/index.ts';
import { TextInput } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { CASE_KIND_WORD, Choose, EXECUTION_WORD, PRIORITY_WORD, options } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

type Update = Editing<CaseContent>['update'];

interface Props {
  readonly content: CaseContent;
  readonly instances: bigint;
  readonly canEdit: boolean;
  readonly update: Update;
}

/** What is looked at every day of a case, on the line of its state; the rest is behind one word. */
export const DailyChips = memo(function DailyChips({ content, instances, canEdit, update, open, onOpen }: Props & { readonly open: boolean; readonly onOpen: (open: boolean) => void }) {
  const { project } = useFrame();
  const modules = useModules(project);
  const members = useMembers(project).data ?? [];
  const owners = [{ value: '', name: 'No owner' }, ...members.map((m) => ({ value: m.name, name: m.name })), ...(content.owner !== '' && !members.some((m) => m.name === content.owner) ? [{ value: content.owner, name: content.owner }] : [])];
  return (
    <>
      <TextInput label="Module" bare placeholder="No module" value={content.module} readOnly={!canEdit} onChange={(module) => update((c) => ({ ...c, module }))} suggestions={modules} />
      <Choose label="Priority" showLabel value={content.priority} options={options(PRIORITY_WORD)} onChange={(priority) => update((c) => ({ ...c, priority }))} disabled={!canEdit} />
      <Choose label="Owner" value={content.owner} options={owners} onChange={(owner) => update((c) => ({ ...c, owner }))} disabled={!canEdit} />
      <button type="button" aria-expanded={open} className="inline-flex h-[26px] items-center gap-1 whitespace-nowrap rounded-[5px] px-1 text-xs text-ink2 hover:bg-page2" onClick={() => onOpen(!open)}>
        {open ? 'Less' : <More content={content} instances={instances} />}
        <ChevronDown size={12} aria-hidden="true" className={open ? 'rotate-180' : ''} />
      </button>
    </>
  );
}, isSame);

/** What is behind the word, in as many words as fit. */
function More({ content: { kind, execution, estimate, tags }, instances }: Pick<Props, 'content' | 'instances'>) {
  const words = [...(kind === 'procedure' ? [] : [CASE_KIND_WORD[kind]]), ...(execution === 'byHand' ? [] : [EXECUTION_WORD[execution]]), ...(estimate === null ? [] : [`${(estimate * Number(instances)).toLocaleString()} min`]), ...tags];
  return (
    <>
      More{words.length > 0 && <span className="max-w-[3.25rem] truncate">· {words.join(' · ')}</span>}
    </>
  );
}

/** What is rarely changed. */
export const RareChips = memo(function RareChips({ content, instances, canEdit, update, children }: Props & { readonly children?: ReactNode }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1.5">
      <Choose label="Kind" value={content.kind} options={options(CASE_KIND_WORD)} onChange={(kind) => update((c) => ({ ...c, kind }))} disabled={!canEdit} />
      <Choose label="Run" value={content.execution} options={options(EXECUTION_WORD)} onChange={(execution) => update((c) => ({ ...c, execution }))} disabled={!canEdit} />
      <Estimate label={content.kind === 'charter' ? 'Time box, minutes' : 'Minutes'} value={content.estimate} instances={instances} canEdit={canEdit} onChange={(estimate) => update((c) => ({ ...c, estimate }))} />
      <Tags tags={content.tags} canEdit={canEdit} onChange={(tags) => update((c) => ({ ...c, tags }))} />
      {children}
    </div>
  );
}, isSame);

const SHOWN = ['module', 'kind', 'execution', 'priority', 'owner', 'estimate', 'tags'] as const;

/** Writing a step is no reason to draw them again. */
type Drawn = Props & { readonly open?: boolean; readonly children?: ReactNode };

function isSame(before: Drawn, after: Drawn): boolean {
  return before.open === after.open && before.children === after.children && before.instances === after.instances && before.canEdit === after.canEdit && before.update === after.update && SHOWN.every((field) => before.content[field] === after.content[field]);
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
      {value !== null && instances > 1n && `× ${instances.toLocaleString()} = ${(value * Number(instances)).toLocaleString()} min`}
    </span>
  );
}

/** Tags are typed with commas between; they become tags when one leaves the field. */
function Tags({ tags, canEdit, onChange }: { readonly tags: readonly string[]; readonly canEdit: boolean; readonly onChange: (tags: string[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange([...new Set(typed.split(',').map((t) => t.trim()).filter(Boolean))].slice(0, 50));
    setTyped(null);
  };
  return (
    <span onBlur={leave}>
      <TextInput label="Tags" value={typed ?? tags.join(', ')} readOnly={!canEdit} onChange={setTyped} />
    </span>
  );
}
