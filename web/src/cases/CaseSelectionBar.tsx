import type { CaseId } from '@caderno/core/artefacts';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useProject } from '../api/index.ts';
import { useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf } from '../look/index.ts';
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
      setOpen({ kind, cases: await readCases(project, chosen) });
    } catch (error) {
      tellFailure(error);
    }
  };
  const move = async (module: string): Promise<void> => {
    setOpen(null);
    try {
      const changed = (await readCases(project, chosen)).map(({ id, version, content }) => ({ kind: 'case' as const, id, version, content: { ...content, module } }));
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
        none
      </TextButton>
      {open?.kind === 'move' && <ToModule words={words} onMove={(module) => void move(module)} onClose={() => setOpen(null)} />}
      {open?.kind === 'clone' && <CloneDialog cases={open.cases} onClose={() => setOpen(null)} onDone={onDone} />}
      {first !== undefined && second !== undefined && <MergeDialog kept={first} gone={second.id} onClose={() => (setOpen(null), onDone())} />}
    </div>
  );
}

/** The cases as they are saved: what somebody is typing in one of them stays a draft. */
async function readCases(project: string, ids: readonly CaseId[]): Promise<CaseAt[]> {
  const artefacts = await Promise.all(ids.map((id) => call('readArtefact', { params: { project, id } })));
  return artefacts.flatMap((a) => (a.kind === 'case' ? [{ id: a.summary.id, version: a.summary.version, content: a.content }] : []));
}

function ToModule({ words, onMove, onClose }: { readonly words: string; readonly onMove: (module: string) => void; readonly onClose: () => void }) {
  const { project } = useFrame();
  const modules = useProject(project).data?.modules ?? [];
  const [module, setModule] = useState('');
  return (
    <Dialog title={`Move ${words} to a module`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onMove(module.trim());
        }}
      >
        <input autoFocus aria-label="Module" list="modules" className="field-boxed w-full" maxLength={200} placeholder="A module that is there, or a new one" value={module} onChange={(e) => setModule(e.target.value)} />
        <datalist id="modules">
          {modules.map((m) => (
            <option key={m} value={m} />
          ))}
        </datalist>
        <div className="mt-4 flex gap-3">
          <Button look="accent" type="submit" disabled={module.trim() === ''}>
            Move
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
