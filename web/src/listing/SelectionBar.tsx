import { scenarioId, type ArtefactKind, type CoveringId } from '@caderno/core/artefacts';
import { isReviewable } from '@caderno/core/reviews';
import { LIMITS, type ChangeMany } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useOwnFields, type ListedHead } from '../api/index.ts';
import { AskReview } from '../askReview/index.ts';
import { ToModule, useChangeMany } from '../artefacts/index.ts';
import { CarryDialog } from '../files/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Busy, KIND_NAME, TextButton, countOf, locale } from '../look/index.ts';
import { AddToSuite, TouchedDialog } from '../suiteMembers/index.ts';
import { TakeBaseline } from '../takeBaseline/index.ts';
import { ChangeDialog } from './ChangeDialog.tsx';
import { changedFieldsOf } from './changes.ts';

interface Props<K extends ArtefactKind> {
  readonly kind: K;
  readonly chosen: readonly ListedHead<K>[];
  /** How many match the query in all. */
  readonly matching: number;
  readonly onAll: () => void;
  readonly onDone: () => void;
  /** What only artefacts of this kind can be asked for; told what is done with those that are selected. */
  readonly more?: ReactNode;
}

/** What can be done with the selected artefacts, each as one command. */
export function SelectionBar<K extends ArtefactKind>({ kind, chosen, matching, onAll, onDone, more }: Props<K>) {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const changeMany = useChangeMany(project);
  const [open, setOpen] = useState<'change' | 'move' | 'carry' | 'review' | 'baseline' | 'suite' | 'touched' | null>(null);
  const [busy, setBusy] = useState(false);
  const [one, many] = KIND_NAME[kind];
  const words = countOf(chosen.length, one, many);
  const change = async (done: ChangeMany['done'], what: string, of: readonly ListedHead<K>[] = chosen): Promise<boolean> => {
    setBusy(true);
    const changed = await changeMany({ of: { ids: of.map((listed) => listed.id) }, done, detail: `${countOf(of.length, one, many)} ${what}` });
    setBusy(false);
    if (changed === null) return false;
    toast.success(`${countOf(changed.changed, one, many)} ${what}. The journal can undo it.`);
    onDone();
    return true;
  };
  const [withdrawn, others] = [chosen.filter((listed) => listed.state === 'withdrawn'), chosen.filter((listed) => listed.state !== 'withdrawn')];
  const fields = changedFieldsOf(kind, useOwnFields(project));
  return (
    <div role="toolbar" aria-label={`Selected ${many}`} aria-busy={busy} className="flex flex-wrap items-center gap-x-3.5 gap-y-1 border-t border-rule2 bg-page2 px-5 py-1.5 text-sm">
      <strong>{chosen.length.toLocaleString(locale())} selected</strong>
      {chosen.length < matching && <TextButton onClick={onAll}>{`Select all ${matching.toLocaleString(locale())}`}</TextButton>}
      {busy && <Busy>{`Changing ${words} …`}</Busy>}
      {chosen.length > LIMITS.many ? (
        <span className="text-brick">{LIMITS.many.toLocaleString(locale())} can be changed at a time.</span>
      ) : (
        <>
          {more}
          {canEdit && (kind === 'case' || kind === 'feature') && <TextButton onClick={() => setOpen('suite')}>Add to a suite</TextButton>}
          {TOUCHING.has(kind) && <TextButton onClick={() => setOpen('touched')}>Cases {chosen.length === 1 ? 'it touches' : 'they touch'}</TextButton>}
          {canEdit && <TextButton onClick={() => setOpen('change')}>Change</TextButton>}
          {canEdit && <TextButton onClick={() => void navigate(address.replacing(project), { state: { selected: chosen.map((listed) => listed.id) } })}>Replace in texts</TextButton>}
          {canEdit && isReviewable(kind) && chosen.length <= LIMITS.leftOut && <TextButton onClick={() => setOpen('review')}>Ask for a review</TextButton>}
          {canEdit && <TextButton onClick={() => setOpen('baseline')}>Take a baseline</TextButton>}
          <TextButton onClick={() => setOpen('carry')}>Carry to another project</TextButton>
          {canEdit && fields.includes('module') && <TextButton onClick={() => setOpen('move')}>Move to module</TextButton>}
          {canEdit && fields.includes('state') && others.length > 0 && <TextButton onClick={() => void change({ kind: 'state', state: 'withdrawn' }, 'withdrawn', others)}>Withdraw</TextButton>}
          {canEdit && fields.includes('state') && withdrawn.length > 0 && <TextButton onClick={() => void change({ kind: 'state', state: 'draft' }, 'brought back', withdrawn)}>Bring back</TextButton>}
        </>
      )}
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {open === 'move' && <ToModule words={words} onMove={(module) => (setOpen(null), void change({ kind: 'edit', edit: { kind: 'module', module } }, `moved to ${module === '' ? 'no module' : module}`))} onClose={() => setOpen(null)} />}
      {open === 'review' && <AskReview ids={chosen.map((listed) => listed.id)} onClose={() => setOpen(null)} />}
      {open === 'baseline' && <TakeBaseline ids={chosen.map((listed) => listed.id)} onClose={() => setOpen(null)} />}
      {open === 'suite' && <AddToSuite members={membersOf(chosen)} onClose={() => setOpen(null)} />}
      {open === 'touched' && <TouchedDialog of={{ ids: chosen.map((listed) => listed.id) }} change={chosen.length <= 3 ? chosen.map((listed) => listed.id).join(', ') : words} onClose={() => setOpen(null)} />}
      {open === 'carry' && <CarryDialog of={{ ids: chosen.map((listed) => listed.id) }} words={words} onClose={() => setOpen(null)} />}
      {open === 'change' && <ChangeDialog kind={kind} chosen={chosen} onChange={change} onClose={() => setOpen(null)} />}
    </div>
  );
}

/** What cases and scenarios stand on. */
const TOUCHING: ReadonlySet<ArtefactKind> = new Set<ArtefactKind>(['requirement', 'condition', 'shared', 'dataSet']);

/** The cases, and all scenarios of the features. */
function membersOf(chosen: readonly ListedHead[]): CoveringId[] {
  return chosen.flatMap(({ head }): CoveringId[] => {
    if (head.kind === 'case') return [head.id];
    return head.kind === 'feature' ? head.scenarios.map((s) => scenarioId(head.id, s.number)) : [];
  });
}
