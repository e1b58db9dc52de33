import type { RequirementId } from '@caderno/core/artefacts';
import type { ConditionContent } from '@caderno/core/conditions';
import { useState } from 'react';
import { toast } from 'sonner';
import { type ConditionInList, useDesign, useSettings } from '../../api/index.ts';
import { useWrite } from '../../artefacts/index.ts';
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
  // The whole contents are read only now that something is to be done with them.
  const design = useDesign(project, { requirement }).data;
  const chosen = design?.conditions.filter((c) => lines.some((line) => line.id === c.id)) ?? [];
  const ready = chosen.length === lines.length;
  const write = useWrite(project);
  const depths = useSettings(project).data?.settings.depths ?? [];
  const [open, setOpen] = useState<Open | null>(null);
  const words = countOf(lines.length, 'condition');
  const change = async (edit: (content: ConditionContent) => ConditionContent, detail: string): Promise<void> => {
    const changed = chosen.map(({ id, version, content }) => ({ kind: 'condition' as const, id, version, content: edit(content) }));
    if ((await write({ changed, detail })) === null) return;
    toast.success(`${detail}. The journal can undo it.`);
    onDone();
  };
  const send = async (destination: Destination): Promise<void> => {
    setOpen(null);
    const link = { id: destination.id, seenVersion: destination.version, anchor: null };
    if (open === 'copy') {
      const made = chosen.map(({ content }) => ({ kind: 'condition' as const, content: { ...content, requirements: [link], under: null, leftOut: [], observations: [], defects: [] } }));
      if ((await write({ made, detail: `${words} copied to ${destination.id}` })) !== null) onDone();
      return;
    }
    const kept = (content: ConditionContent) => content.requirements.filter((r) => r.id !== destination.id && (open === 'link' || r.id !== requirement));
    await change((content) => ({ ...content, requirements: [...kept(content), content.requirements.find((r) => r.id === destination.id) ?? link] }), open === 'move' ? `${words} moved from ${requirement} to ${destination.id}` : `${words} also for ${destination.id}`);
  };
  const withdraw = async (): Promise<void> => {
    if ((await write({ withdrawn: lines.map((c) => c.id), detail: `${words} withdrawn` })) === null) return;
    toast.success(`${words} withdrawn. The journal can undo it.`);
    onDone();
  };
  const setDepth = (depth: string): void => {
    const all = lines.every((c) => c.content.depths.includes(depth));
    void change((content) => ({ ...content, depths: all ? content.depths.filter((d) => d !== depth) : [...content.depths.filter((d) => d !== depth), depth] }), `${words} ${all ? 'no longer' : 'now'} in ${depth}`);
  };
  return (
    <div role="toolbar" aria-label="Selected conditions" className="-mx-6 mt-2 flex flex-wrap items-center gap-x-3.5 gap-y-1 border-y border-rule2 bg-page2 px-6 py-1.5 text-sm">
      <strong>{lines.length} selected</strong>
      {onWrite !== null && <TextButton onClick={onWrite}>write cases</TextButton>}
      <TextButton disabled={!ready} onClick={() => setOpen('copy')}>copy to …</TextButton>
      <TextButton disabled={!ready} onClick={() => setOpen('move')}>move to …</TextButton>
      <TextButton disabled={!ready} onClick={() => setOpen('link')}>also for …</TextButton>
      {lines.length > 1 && <TextButton disabled={!ready} onClick={() => setOpen('merge')}>merge</TextButton>}
      {depths.map((depth) => (
        <TextButton key={depth} disabled={!ready} onClick={() => setDepth(depth)} aria-pressed={lines.every((c) => c.content.depths.includes(depth))}>
          {depth}
        </TextButton>
      ))}
      <TextButton onClick={() => void withdraw()}>withdraw</TextButton>
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {open === 'merge' && design !== undefined && <MergeConditions chosen={chosen} design={design} onClose={() => setOpen(null)} onDone={onDone} />}
      {open !== null && open !== 'merge' && <ToRequirement title={TITLE[open](words)} except={requirement} onPick={(d) => void send(d)} onClose={() => setOpen(null)} />}
    </div>
  );
}

const TITLE: Record<Exclude<Open, 'merge'>, (words: string) => string> = {
  copy: (words) => `Copy ${words} to a requirement`,
  move: (words) => `Move ${words} to a requirement`,
  link: (words) => `Let ${words} serve another requirement as well`,
};
