import type { ArtefactId, RequirementId } from '@caderno/core/artefacts';
import { suiteIdSchema, type NewBaseline } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useModules, useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Busy, Button, Dialog, locale, TextBox, TextArea, Labelled, Select } from '../look/index.ts';

interface Props {
  /** Of these, with what they use; absent: it is chosen. */
  readonly ids?: readonly ArtefactId[];
  readonly onClose: () => void;
}

const MODULE = 'module: ';

/** Takes a baseline of everything, of a module, of a suite, of what hangs on a requirement, or of what is selected. */
export function TakeBaseline({ ids, onClose }: Props) {
  const { project } = useFrame();
  const client = useQueryClient();
  const navigate = useNavigate();
  const requirements = (useSummaries(project, 'requirement').data ?? []).filter((r) => r.state !== 'withdrawn');
  const suites = (useSummaries(project, 'suite').data ?? []).filter((s) => s.state !== 'withdrawn');
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const modules = useModules(project);
  const [of, setOf] = useState('');
  const parts = [
    { value: '', name: 'everything' },
    ...modules.map((module) => ({ value: MODULE + module, name: `the module ${module}, with all that is used there` })),
    ...suites.map(({ id, title }) => ({ value: id, name: `the suite ${id} ${title}, with its members, what they use and what they show` })),
    ...requirements.map(({ id, title }) => ({ value: id, name: `${id} ${title}, with all that hangs on it` })),
  ];
  const [busy, setBusy] = useState(false);
  // Sent again after an answer that never came, it is the same command: nobody has two.
  const [commandId] = useState(() => crypto.randomUUID());
  const take = async (): Promise<void> => {
    setBusy(true);
    try {
      const taken = await call('takeBaseline', { params: { project }, body: { name: name.trim(), note: note.trim(), of: ids === undefined ? partOf(of) : { ids: [...ids] } } }, { commandId });
      await client.invalidateQueries({ queryKey: [project, 'baselines', 'all'] });
      toast.success(`B-${taken.number} is taken.`);
      onClose();
      await navigate(address.baselines(project, taken.number));
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Dialog title="Take a baseline" onClose={onClose}>
      <form
        className="space-y-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!busy && name.trim() !== '') void take();
        }}
      >
        <p className="text-ink2">It freezes what is saved now, in exact versions. It cannot be changed or taken back.</p>
        <Labelled label="Name">
          <TextBox className="w-full" maxLength={300} value={name} onChange={setName} />
        </Labelled>
        {ids !== undefined && <p>Of the {ids.length === 1 ? 'one' : ids.length.toLocaleString(locale())} selected, with all that is used there.</p>}
        {ids === undefined && (
          <Labelled label="Of">
            <Select className="w-full" value={of} options={parts} onChange={setOf} />
          </Labelled>
        )}
        <Labelled label="Note" hint="may stay empty">
          <TextArea className="w-full" rows={2} maxLength={2000} value={note} onChange={setNote} />
        </Labelled>
        <div className="flex items-center justify-end gap-2">
          {busy && <Busy>Taking it …</Busy>}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={busy || name.trim() === ''}>
            Take it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** What is chosen from the list. */
function partOf(chosen: string): NewBaseline['of'] {
  if (chosen === '') return { everything: true };
  if (chosen.startsWith(MODULE)) return { module: chosen.slice(MODULE.length) };
  const suite = suiteIdSchema.safeParse(chosen).data;
  return suite === undefined ? { requirement: chosen as RequirementId } : { suite };
}
