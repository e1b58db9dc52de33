import { PRIORITIES, type ArtefactState, type RequirementId } from '@caderno/core/artefacts';
import { RISKS, type RequirementContent, type RiskScale } from '@caderno/core/basis';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { tellFailure, useSettings } from '../api/index.ts';
import { ToModule, readMany, useWrite } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { PRIORITY_WORD, PickAction, REQUIREMENT_TYPE_WORD, RISK_WORD, STATE_WORD, TextButton, countOf, options } from '../look/index.ts';

interface Props {
  readonly chosen: readonly RequirementId[];
  readonly onDone: () => void;
}

type Change = (content: RequirementContent) => RequirementContent;

/** What can be done with the selected requirements, each as one entry of the journal. */
export function OutlineSelection({ chosen, onDone }: Props) {
  const { project } = useFrame();
  const write = useWrite(project);
  const scale = useSettings(project).data?.settings.riskScale;
  const [moving, setMoving] = useState(false);
  const [busy, setBusy] = useState(false);
  const words = countOf(chosen.length, 'requirement');
  const done = async (writing: Promise<readonly string[] | null>, what: string): Promise<void> => {
    setBusy(true);
    const made = await writing.catch(tellFailure);
    setBusy(false);
    if (made === null || made === undefined) return;
    toast.success(`${what}. The journal can undo it.`);
    onDone();
  };
  const change = (edit: Change, what: string): void => {
    const writing = async (): Promise<readonly string[] | null> => {
      const changed = (await readMany(project, 'requirement', chosen)).map(({ summary: { id, version }, content }) => ({ kind: 'requirement' as const, id, version, content: edit(content) }));
      return write({ changed, detail: what });
    };
    void done(writing(), what);
  };
  const setState = (state: ArtefactState): void => {
    const what = `${words} set to ${STATE_WORD[state]}`;
    void done(write({ states: chosen.map((id) => ({ id, state })), detail: what }), what);
  };
  const rate = (scaled: RiskScale, part: 'likelihood' | 'impact', step: number, name: string): void =>
    change((c) => ({ ...c, rating: { ...(c.rating ?? middle(scaled)), [part]: step } }), `${words}: ${part} ${name}`);
  if (chosen.length > LIMITS.written) return <p className="border-t border-rule2 bg-page2 px-5 py-2 text-sm text-brick">{words} are selected; {LIMITS.written.toLocaleString()} can be changed at a time.</p>;
  return (
    <div role="toolbar" aria-label="Selected requirements" aria-busy={busy} className="flex flex-wrap items-center gap-x-2 gap-y-1 border-t border-rule2 bg-page2 px-5 py-1.5 text-sm">
      <strong className="mr-1">{chosen.length} selected</strong>
      <PickAction label="Set risk" options={RISKS.map((risk) => ({ value: risk, name: RISK_WORD[risk] }))} onPick={(risk) => change((c) => ({ ...c, risk, rating: null }), `${words}: ${RISK_WORD[risk].toLowerCase()}`)} />
      {scale !== undefined && <PickAction label="Set likelihood" options={scale.likelihood.map((name, i) => ({ value: String(i), name }))} onPick={(step) => rate(scale, 'likelihood', Number(step), scale.likelihood[Number(step)] ?? '')} />}
      {scale !== undefined && <PickAction label="Set impact" options={scale.impact.map((name, i) => ({ value: String(i), name }))} onPick={(step) => rate(scale, 'impact', Number(step), scale.impact[Number(step)] ?? '')} />}
      <PickAction label="Set priority" options={PRIORITIES.map((priority) => ({ value: priority, name: PRIORITY_WORD[priority] }))} onPick={(priority) => change((c) => ({ ...c, priority }), `${words}: priority ${PRIORITY_WORD[priority].toLowerCase()}`)} />
      <PickAction label="Set kind" options={options(REQUIREMENT_TYPE_WORD)} onPick={(type) => change((c) => ({ ...c, type }), `${words}: kind ${REQUIREMENT_TYPE_WORD[type].toLowerCase()}`)} />
      <PickAction label="Set state" options={(['draft', 'agreed', 'withdrawn'] as const).map((state) => ({ value: state, name: STATE_WORD[state] }))} onPick={setState} />
      <TextButton onClick={() => setMoving(true)}>Move to module</TextButton>
      <TextButton onClick={() => setState('withdrawn')}>Withdraw</TextButton>
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {moving && <ToModule words={words} onMove={(module) => (setMoving(false), change((c) => ({ ...c, module }), `${words} moved to ${module}`))} onClose={() => setMoving(false)} />}
    </div>
  );
}

/** A rating begins in the middle of the scales. */
function middle(scale: RiskScale): NonNullable<RequirementContent['rating']> {
  return { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
}
