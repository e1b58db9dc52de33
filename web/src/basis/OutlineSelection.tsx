import { PRIORITIES, type ArtefactState, type RequirementId } from '@caderno/core/artefacts';
import { RISKS } from '@caderno/core/basis';
import type { ManyEdit } from '@caderno/core/many';
import { LIMITS, type ChangeMany } from '@caderno/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { useSettings } from '../api/index.ts';
import { ToModule, useChangeMany } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { PRIORITY_WORD, PickAction, REQUIREMENT_TYPE_WORD, RISK_WORD, STATE_WORD, TextButton, countOf, options } from '../look/index.ts';

interface Props {
  readonly chosen: readonly RequirementId[];
  readonly onDone: () => void;
}

/** What can be done with the selected requirements, each as one entry of the journal. */
export function OutlineSelection({ chosen, onDone }: Props) {
  const { project } = useFrame();
  const changeMany = useChangeMany(project);
  const scale = useSettings(project).data?.settings.riskScale;
  const [moving, setMoving] = useState(false);
  const [busy, setBusy] = useState(false);
  const words = countOf(chosen.length, 'requirement');
  const carryOut = async (done: ChangeMany['done'], what: string): Promise<void> => {
    setBusy(true);
    const changed = await changeMany({ of: { ids: [...chosen] }, done, detail: what });
    setBusy(false);
    if (changed === null) return;
    toast.success(`${what}. The journal can undo it.`);
    onDone();
  };
  const edit = (each: ManyEdit, what: string): void => void carryOut({ kind: 'edit', edit: each }, what);
  const setState = (state: ArtefactState): void => void carryOut({ kind: 'state', state }, `${words} set to ${STATE_WORD[state]}`);
  const rate = (part: 'likelihood' | 'impact', step: number, name: string): void => edit({ kind: 'rating', part, step }, `${words}: ${part} ${name}`);
  if (chosen.length > LIMITS.many) return <p className="border-t border-rule2 bg-page2 px-5 py-2 text-sm text-brick">{words} are selected; {LIMITS.many.toLocaleString()} can be changed at a time.</p>;
  return (
    <div role="toolbar" aria-label="Selected requirements" aria-busy={busy} className="flex flex-wrap items-center gap-x-2 gap-y-1 border-t border-rule2 bg-page2 px-5 py-1.5 text-sm">
      <strong className="mr-1">{chosen.length} selected</strong>
      <PickAction label="Set risk" options={RISKS.map((risk) => ({ value: risk, name: RISK_WORD[risk] }))} onPick={(risk) => edit({ kind: 'risk', risk }, `${words}: ${RISK_WORD[risk].toLowerCase()}`)} />
      {scale !== undefined && <PickAction label="Set likelihood" options={scale.likelihood.map((name, i) => ({ value: String(i), name }))} onPick={(step) => rate('likelihood', Number(step), scale.likelihood[Number(step)] ?? '')} />}
      {scale !== undefined && <PickAction label="Set impact" options={scale.impact.map((name, i) => ({ value: String(i), name }))} onPick={(step) => rate('impact', Number(step), scale.impact[Number(step)] ?? '')} />}
      <PickAction label="Set priority" options={PRIORITIES.map((priority) => ({ value: priority, name: PRIORITY_WORD[priority] }))} onPick={(priority) => edit({ kind: 'priority', priority }, `${words}: priority ${PRIORITY_WORD[priority].toLowerCase()}`)} />
      <PickAction label="Set kind" options={options(REQUIREMENT_TYPE_WORD)} onPick={(type) => edit({ kind: 'type', type }, `${words}: kind ${REQUIREMENT_TYPE_WORD[type].toLowerCase()}`)} />
      <PickAction label="Set state" options={(['draft', 'agreed', 'withdrawn'] as const).map((state) => ({ value: state, name: STATE_WORD[state] }))} onPick={setState} />
      <TextButton onClick={() => setMoving(true)}>Move to module</TextButton>
      <TextButton onClick={() => setState('withdrawn')}>Withdraw</TextButton>
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {moving && <ToModule words={words} onMove={(module) => (setMoving(false), edit({ kind: 'module', module }, `${words} moved to ${module}`))} onClose={() => setMoving(false)} />}
    </div>
  );
}
