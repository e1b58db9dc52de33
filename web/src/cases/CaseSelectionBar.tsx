import type { CaseId } from '@caderno/core/artefacts';
import type { ChangeMany } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { tellFailure } from '../api/index.ts';
import { ToModule, readMany, useChangeMany } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { CloneDialog, MOST_PREVIEWED, type CaseAt } from './CloneDialog.tsx';
import { MergeDialog } from './MergeDialog.tsx';

interface Props {
  readonly chosen: readonly CaseId[];
  readonly onDone: () => void;
}

type Open = { readonly kind: 'move' } | { readonly kind: 'clone' | 'merge'; readonly cases: readonly CaseAt[] };

/** What can be done with the selected cases, each as one command. */
export function CaseSelectionBar({ chosen, onDone }: Props) {
  const { project, canEdit } = useFrame();
  const changeMany = useChangeMany(project);
  const [open, setOpen] = useState<Open | null>(null);
  const words = countOf(chosen.length, 'case');
  const read = async (kind: 'clone' | 'merge'): Promise<void> => {
    try {
      // A few are enough to see what a clone makes; the server makes all of them.
      const cases = await readMany(project, 'case', chosen.slice(0, MOST_PREVIEWED));
      setOpen({ kind, cases: cases.map(({ summary: { id, version }, content }) => ({ id, version, content })) });
    } catch (error) {
      tellFailure(error);
    }
  };
  const change = async (done: ChangeMany['done'], what: string): Promise<void> => {
    setOpen(null);
    const changed = await changeMany({ of: { ids: [...chosen] }, done, detail: `${words} ${what}` });
    if (changed === null) return;
    toast.success(`${countOf(changed.changed, 'case')} ${what}. The journal can undo it.`);
    onDone();
  };
  const move = (module: string): Promise<void> => change({ kind: 'edit', edit: { kind: 'module', module } }, `moved to ${module === '' ? 'no module' : module}`);
  const [first, second] = open?.kind === 'merge' ? open.cases : [];
  return (
    <div role="toolbar" aria-label="Selected cases" className="flex flex-wrap items-center gap-x-3.5 gap-y-1 border-t border-rule2 bg-page2 px-5 py-1.5 text-sm">
      <strong>{chosen.length} selected</strong>
      <Link className="underline decoration-rule2" to={{ pathname: chosen.length === 1 && chosen[0] !== undefined ? address.reading(project, chosen[0]) : address.readingSelection(project), search: `cases=${chosen.join(',')}` }}>
        read through
      </Link>
      {canEdit && (
        <>
          <TextButton onClick={() => setOpen({ kind: 'move' })}>move to …</TextButton>
          <TextButton onClick={() => void read('clone')}>clone</TextButton>
          {chosen.length === 2 && <TextButton onClick={() => void read('merge')}>merge</TextButton>}
          <TextButton onClick={() => void change({ kind: 'state', state: 'withdrawn' }, 'withdrawn')}>withdraw</TextButton>
        </>
      )}
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {open?.kind === 'move' && <ToModule words={words} onMove={(module) => void move(module)} onClose={() => setOpen(null)} />}
      {open?.kind === 'clone' && <CloneDialog all={chosen} cases={open.cases} onClose={() => setOpen(null)} onDone={onDone} />}
      {first !== undefined && second !== undefined && <MergeDialog kept={first} gone={second.id} onClose={() => (setOpen(null), onDone())} />}
    </div>
  );
}
