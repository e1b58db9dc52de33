import type { CaseId, SharedId } from '@caderno/core/artefacts';
import type { CaseContent, StepId, Written } from '@caderno/core/cases';
import { EMPTY_SHARED, takeOut, type SharedContent } from '@caderno/core/shared';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';
import { newStepId } from '../steps/index.ts';

/** What steps are taken out of, as it stands on the page. */
export type Owner = { readonly kind: 'case'; readonly id: CaseId; readonly version: number; readonly content: CaseContent } | { readonly kind: 'shared'; readonly id: SharedId; readonly version: number; readonly content: SharedContent };

interface Props {
  readonly owner: Owner;
  readonly steps: readonly StepId[];
  readonly onClose: () => void;
}

/** Takes a run of steps out into shared steps, after a look at what they take; one entry of the journal. */
export function TakeOutDialog({ owner, steps, onClose }: Props) {
  const { project } = useFrame();
  const client = useQueryClient();
  const [title, setTitle] = useState('');
  const taken = takeOut(owner.content as Written, steps);
  if (taken === null) return null;
  const run = async (): Promise<void> => {
    const shared: SharedContent = { ...EMPTY_SHARED, title: title.trim(), module: owner.content.module, steps: taken.steps, parameters: taken.parameters };
    const use = [{ at: taken.at, step: newStepId(), arguments: [] }];
    const { id, version } = owner;
    const user = owner.kind === 'case' ? { kind: owner.kind, id: owner.id, version, content: { ...owner.content, steps: taken.rest }, uses: use } : { kind: owner.kind, id: owner.id, version, content: { ...owner.content, steps: taken.rest }, uses: use };
    try {
      const { made } = await call('takeOut', { params: { project }, body: { shared, users: [user] } }, { commandId: crypto.randomUUID() });
      await client.invalidateQueries({ queryKey: [project] });
      toast.success(`${made.join('')} “${shared.title}” was made of ${countOf(taken.steps.length, 'step')} of ${id}. The journal can undo it.`);
      onClose();
    } catch (error) {
      tellFailure(error);
    }
  };
  return (
    <Dialog title={`Take ${countOf(taken.steps.length, 'step')} out into shared steps`} onClose={onClose}>
      <label className="block text-sm font-semibold">
        What they do, in a few words
        <input autoFocus className="field-boxed mt-1 w-full font-normal" value={title} maxLength={300} placeholder="Sign in as a clerk" onChange={(e) => setTitle(e.target.value)} onKeyDown={(e) => e.key === 'Enter' && title.trim() !== '' && void run()} />
      </label>
      <ol className="mt-3 list-decimal border-l-2 border-dashed border-ink2 bg-page2 py-2 pl-9 pr-3 text-sm">
        {taken.steps.map((step) => (
          <li key={step.id}>{step.kind === 'step' ? step.action || 'an empty step' : `uses ${step.kind === 'shared' ? step.shared : step.case}`}</li>
        ))}
      </ol>
      <p className="mt-2 text-sm text-ink2">
        {taken.parameters.length === 0 ? 'They use no parameters.' : 'Their parameters are those of the same names here, so that nothing changes: '}
        {taken.parameters.map((p) => (
          <span key={p.id} className="cad-parameter mr-1">{`<${p.name}>`}</span>
        ))}
      </p>
      <div className="mt-4 flex gap-3">
        <Button look="accent" disabled={title.trim() === ''} onClick={() => void run()}>
          Take out
        </Button>
        <Button onClick={onClose}>Leave</Button>
      </div>
      <p className="mt-2 text-xs text-ink2">What you typed in {owner.id} is saved along with it.</p>
    </Dialog>
  );
}
