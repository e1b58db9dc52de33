import type { CaseId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { tellFailure } from '../api/index.ts';
import { ToModule, readMany, useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { CloneDialog, type CaseAt } from './CloneDialog.tsx';
import { MergeDialog } from './MergeDialog.tsx';

interface Props {
  readonly chosen: readonly CaseId[];
  readonly onDone: () => void;
}

type Open = { readonly kind: 'move' } | { readonly kind: 'clone' | 'merge'; readonly cases: readonly CaseAt[] };

/** What can be done with the selected cases, each as one command. */
export function CaseSelectionBar({ chosen, onDone }: Props) {
  const { project, canEdit } = useFrame();
  const write = useWrite(project);
  const [open, setOpen] = useState<Open | null>(null);
  const words = countOf(chosen.length, 'case');
  const read = async (kind: 'clone' | 'merge'): Promise<void> => {
    try {
      setOpen({ kind, cases: (await readMany(project, 'case', chosen)).map(({ summary: { id, version }, content }) => ({ id, version, content })) });
    } catch (error) {
      tellFailure(error);
    }
  };
  const move = async (module: string): Promise<void> => {
    setOpen(null);
    try {
      const changed = (await readMany(project, 'case', chosen)).map(({ summary: { id, version }, content }) => ({ kind: 'case' as const, id, version, content: { ...content, module } }));
      if ((await write({ changed, detail: `${words} moved to ${module === '' ? 'no module' : module}` })) === null) return;
      toast.success(`${words} moved to ${module === '' ? 'no module' : module}. The journal can undo it.`);
      onDone();
    } catch (error) {
      tellFailure(error);
    }
  };
  const withdraw = async (): Promise<void> => {
    if ((await write({ withdrawn: [...chosen], detail: `${words} withdrawn` })) === null) return;
    toast.success(`${words} withdrawn. The journal can undo it.`);
    onDone();
  };
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
          <TextButton onClick={() => void withdraw()}>withdraw</TextButton>
        </>
      )}
      <TextButton className="ml-auto text-ink2" onClick={onDone}>
        Clear selection
      </TextButton>
      {open?.kind === 'move' && <ToModule words={words} onMove={(module) => void move(module)} onClose={() => setOpen(null)} />}
      {open?.kind === 'clone' && <CloneDialog cases={open.cases} onClose={() => setOpen(null)} onDone={onDone} />}
      {first !== undefined && second !== undefined && <MergeDialog kept={first} gone={second.id} onClose={() => (setOpen(null), onDone())} />}
    </div>
  );
}
