import type { CoveringId, SuiteId } from '@caderno/core/artefacts';
import { EMPTY_SUITE, entryId, withMembers } from '@caderno/core/suites';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { failureSentence, useArtefact, useSummaries } from '../api/index.ts';
import { useWrite } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, countOf, TextBox, Labelled } from '../look/index.ts';
import { newEntryId } from './newEntryId.ts';

interface Props {
  readonly members: readonly CoveringId[];
  readonly onClose: () => void;
}

const NEW = 'new';

/** Puts cases and scenarios into a suite, at its end or at that of one of its parts, or into a new one. What is in it already stays where it is. */
export function AddToSuite({ members, onClose }: Props) {
  const { project } = useFrame();
  const suites = (useSummaries(project, 'suite').data ?? []).filter((s) => s.state !== 'withdrawn');
  const [chosen, setChosen] = useState<string>(suites[0]?.id ?? NEW);
  const suite = suites.find((s) => s.id === chosen)?.id ?? null;
  const options = [...suites.map((s) => ({ value: s.id as string, name: `${s.id} ${s.title}` })), { value: NEW, name: 'a new suite' }];
  const words = `${countOf(members.length, 'member')}`;
  return (
    <Dialog title="Add to a suite" onClose={onClose}>
      <p className="mb-3 text-sm">
        <Choose label="Suite" showLabel value={chosen} options={options} onChange={setChosen} />
      </p>
      {suite === null ? <IntoNew members={members} words={words} onClose={onClose} /> : <IntoSuite key={suite} suite={suite} members={members} words={words} onClose={onClose} />}
    </Dialog>
  );
}

interface IntoProps extends Props {
  readonly words: string;
}

function IntoNew({ members, words, onClose }: IntoProps) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const [title, setTitle] = useState('');
  const [busy, setBusy] = useState(false);
  const add = async (): Promise<void> => {
    setBusy(true);
    const made = await write({ made: [{ kind: 'suite', content: { ...EMPTY_SUITE, title: title.trim(), entries: withMembers([], members, null, newEntryId) }, under: null }], detail: `a suite of ${words}` });
    setBusy(false);
    const [id] = made ?? [];
    if (id === undefined) return;
    onClose();
    await navigate(address.artefact(project, id));
  };
  return (
    <form
      className="space-y-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (title.trim() !== '' && !busy) void add();
      }}
    >
      <Labelled label="Name of the suite">
        <TextBox className="w-full" maxLength={LIMITS.title} value={title} onChange={setTitle} />
      </Labelled>
      <Actions words={words} disabled={busy || title.trim() === ''} onClose={onClose} />
    </form>
  );
}

const AT_THE_END = 'end';

function IntoSuite({ suite, members, words, onClose }: IntoProps & { readonly suite: SuiteId }) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const { data, error } = useArtefact(project, 'suite', suite);
  const [part, setPart] = useState<string>(AT_THE_END);
  const [busy, setBusy] = useState(false);
  if (data === undefined) return <p className="text-ink2">{error === null ? 'Reading …' : failureSentence(error)}</p>;
  const { content, summary } = data;
  const parts = content.entries.flatMap((e) => (e.kind === 'part' ? [{ value: e.id as string, name: e.title === '' ? 'a part without a name' : e.title }] : []));
  const entries = withMembers(content.entries, members, part === AT_THE_END ? null : entryId(part), newEntryId);
  const added = entries.length - content.entries.length;
  const add = async (): Promise<void> => {
    setBusy(true);
    const done = await write({ changed: [{ kind: 'suite', id: suite, version: summary.version, content: { ...content, entries } }], detail: `${words} added to ${suite}` });
    setBusy(false);
    if (done === null) return;
    toast.success(`${countOf(added, 'member')} added to ${suite}. The journal can undo it.`, { action: { label: `Open ${suite}`, onClick: () => void navigate(address.suites(project, suite)) } });
    onClose();
  };
  return (
    <form
      className="space-y-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (added > 0 && !busy) void add();
      }}
    >
      {parts.length > 0 && <Choose label="Part" showLabel value={part} options={[{ value: AT_THE_END, name: 'at the end' }, ...parts]} onChange={setPart} />}
      {added < members.length && <p className="text-ink2">{added === 0 ? 'All of them are in it already.' : `${countOf(members.length - added, 'of them is', 'of them are')} in it already, and ${members.length - added === 1 ? 'stays' : 'stay'} in place.`}</p>}
      <Actions words={countOf(added, 'member')} disabled={busy || added === 0} onClose={onClose} />
    </form>
  );
}

function Actions({ words, disabled, onClose }: { readonly words: string; readonly disabled: boolean; readonly onClose: () => void }) {
  return (
    <p className="flex justify-end gap-2">
      <Button onClick={onClose}>Cancel</Button>
      <Button type="submit" look="accent" disabled={disabled}>
        Add {words}
      </Button>
    </p>
  );
}
