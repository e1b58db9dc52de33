import type { ArtefactId, ArtefactState } from '@caderno/core/artefacts';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call, failureSentence, tellFailure, useRefresh } from '../api/index.ts';
import { address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Choose, STATE_WORD, TextButton, ago, options } from '../look/index.ts';
import { BothSides } from './BothSides.tsx';
import type { Editing, KeepState } from './useEditing.ts';

interface Props {
  readonly id: ArtefactId;
  /** Null: another word says how it stands. */
  readonly state: ArtefactState | null;
  readonly author: string;
  readonly at: string;
  readonly editing: Editing<unknown>;
}

/** How things stand with an artefact's versions: the save state, always visible, and what one can do about it. */
export function SaveBar({ id, state, author, at, editing }: Props) {
  const { project, canEdit } = useFrame();
  const [noting, setNoting] = useState(false);
  const [note, setNote] = useState('');
  const { save, undo, redo, dirty } = editing;
  const commands = useMemo<Command[]>(
    () =>
      canEdit
        ? [
            { id: 'save', title: `Save ${id} as a version`, keys: '$mod+s', keyLabel: 'Ctrl S', whileTyping: true, run: () => void save('') },
            { id: 'save-note', title: `Save ${id} with a note`, keys: '$mod+Shift+s', keyLabel: 'Ctrl Shift S', whileTyping: true, run: () => setNoting(true) },
            { id: 'undo', title: 'Undo the last edit', keys: '$mod+z', keyLabel: 'Ctrl Z', whileTyping: true, run: undo },
            { id: 'redo', title: 'Redo', keys: '$mod+Shift+z', keyLabel: 'Ctrl Shift Z', whileTyping: true, run: redo },
          ]
        : [],
    [canEdit, id, redo, save, undo],
  );
  useCommands(commands);
  const refresh = useRefresh(project);
  const setState = (next: ArtefactState): void => void call('setState', { params: { project, id }, body: { state: next } }, { commandId: crypto.randomUUID() }).then(refresh, tellFailure);
  return (
    <div className="text-xs text-ink2">
      <div className="flex flex-wrap items-center gap-2">
        {state !== null && <Choose label="State" value={state} options={options(STATE_WORD).filter((o) => o.value !== 'inReview' || state === 'inReview')} onChange={setState} disabled={!canEdit} />}
        <span role="status" aria-live="polite">
          v{editing.version} · <KeepWords keep={editing.keep} author={author} at={at} />
        </span>
        {dirty && canEdit && (
          <>
            <Button look="accent" className="!h-[26px] !px-2.5 !text-xs" onClick={() => void save('')}>
              Save v{editing.version + 1}
            </Button>
            <TextButton onClick={() => setNoting(true)}>with a note</TextButton>
            <TextButton onClick={editing.discard}>discard</TextButton>
          </>
        )}
        <Link className="underline decoration-rule2 underline-offset-2" to={address.versions(project, id)}>
          versions
        </Link>
      </div>
      {noting && (
        <form
          className="mt-2 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void save(note).then(() => setNote(''));
            setNoting(false);
          }}
        >
          <input autoFocus aria-label="Note on this version" placeholder="What changed, and why" maxLength={2000} value={note} onChange={(e) => setNote(e.target.value)} className="field-boxed min-w-0 flex-1" />
          <Button type="submit">Save</Button>
          <Button onClick={() => setNoting(false)}>Cancel</Button>
        </form>
      )}
      {editing.theirs !== null && <BothSides id={id} theirs={editing.theirs} mine={editing.content} onSettle={editing.settle} />}
    </div>
  );
}

function KeepWords({ keep, author, at }: { readonly keep: KeepState; readonly author: string; readonly at: string }) {
  switch (keep.kind) {
    case 'version':
      return <>saved {ago(at)} by {author}</>;
    case 'typing':
      return <>typing …</>;
    case 'kept':
      return <span className="text-pine">kept as draft</span>;
    case 'waiting':
      return <span className="text-ochre-ink">kept in this browser, sent when the server is back</span>;
    case 'refused':
      return <span className="text-brick">not kept: {failureSentence(keep.error)}</span>;
  }
}
