import type { RequirementId } from '@caderno/core/artefacts';
import type { ChangeMany } from '@caderno/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { type ConditionInList, useDesign, useSettings } from '../../api/index.ts';
import { useChangeMany } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { TextButton, countOf } from '../../look/index.ts';
import { MergeConditions } from './MergeConditions.tsx';
import { ToRequirement, type Destination } from './ToRequirement.tsx';

interface Props {
  readonly requirement: RequirementId;
  readonly chosen: readonly ConditionInList[];
  /** Null: nothing is missing. */
  readonly onWrite: (() => void) | null;
  readonly onDone: () => void;
}

type Open = 'copy' | 'move' | 'link' | 'merge';

/** What can be done with the selected conditions, each as one command. */
export function SelectionBar({ requirement, chosen: lines, onWrite, onDone }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const depths = useSettings(project).data?.settings.depths ?? [];
  const [open, setOpen] = useState<Open | null>(null);
  const words = countOf(lines.length, 'condition');
  const order = async (done: ChangeMany['done'], detail: string): Promise<void> => {
    if ((await changeMany({ of: { ids: lines.map((c) => c.id) }, done, detail })) === null) return;
    toast.success(`${detail}. The journal can undo it.`);
    onDone();
  };
  const send = (destination: Destination): void => {
    setOpen(null);
    const [to, seenVersion] = [destination.id, destination.version];
    if (open === 'copy') void order({ kind: 'copyTo', requirement: to, seenVersion }, `${words} copied to ${to}`);
    else void order({ kind: 'edit', edit: { kind: 'derivedFrom', requirement: to, seenVersion, insteadOf: open === 'move' ? requirement : null } }, open === 'move' ? `${words} moved from ${requirement} to ${to}` : `${words} also for ${to}`);
  };
  const setDepth = (depth: string): void => {
    const all = lines.every((c) => c.content.depths.includes(depth));
    void order({ kind: 'edit', edit: { kind: 'depth', depth, belongs: !all } }, `${words} ${all ? 'no longer' : 'now'} in ${depth}`);
  };
  return (
    <div role="toolbar" aria-label="Selected conditions" className="-mx-6 mt-2 flex flex-wrap items-center gap-x-3.5 gap-y-1 border-y border-rule2 bg-page2 px-6 py-1.5 text-sm">
      <strong>{lines.length} selected</strong>
      {onWrite !== null && <TextButton onClick={onWrite}>write cases</TextButton>}
      <TextButton onClick={() => setOpen('copy')}>copy to …</TextButton>
      <TextButton onClick={() => setOpen('move')}>move to …</TextButton>
      <TextButton onClick={() => setOpen('link')}>also for …</TextButton>
      {lines.length > 1 && <TextButton onClick={() => setOpen('merge')}>merge</TextButton>}
      {depths.map((depth) => (
        <TextButton key={depth} onClick={() => setDepth(depth)} aria-pressed={lines.every((c) => c.content.depths.includes(depth))}>
          {depth}
        </TextButton>
      ))}
      <TextButton onClick={() => void order({ kind: 'state', state: 'withdrawn' }, `${words} withdrawn`)}>withdraw</TextButton>
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {open === 'merge' && <Merging requirement={requirement} lines={lines} onClose={() => setOpen(null)} onDone={onDone} />}
      {open !== null && open !== 'merge' && <ToRequirement title={TITLE[open](words)} except={requirement} onPick={send} onClose={() => setOpen(null)} />}
    </div>
  );
}

/** The whole contents are read only now that they are to be put together. */
function Merging({ requirement, lines, onClose, onDone }: { readonly requirement: RequirementId; readonly lines: readonly ConditionInList[]; readonly onClose: () => void; readonly onDone: () => void }) {
  const { project } = useFrame();
  const design = useDesign(project, { requirement }).data;
  const chosen = design?.conditions.filter((c) => lines.some((line) => line.id === c.id)) ?? [];
  if (design === undefined || chosen.length !== lines.length) return null;
  return <MergeConditions chosen={chosen} design={design} onClose={onClose} onDone={onDone} />;
}

const TITLE: Record<Exclude<Open, 'merge'>, (words: string) => string> = {
  copy: (words) => `Copy ${words} to a requirement`,
  move: (words) => `Move ${words} to a requirement`,
  link: (words) => `Let ${words} serve another requirement as well`,
};
