import type { ArtefactId, ArtefactState } from '@caderno/core/artefacts';
import { useCallback, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { call, tellFailure, useForeseen } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Choose, STATE_WORD, TextButton, ago, options } from '../look/index.ts';
import { BothSides } from './BothSides.tsx';
import type { Editing } from './editing.ts';
import { KeepWords } from './KeepWords.tsx';
import { useEditCommands } from './useEditCommands.ts';

interface Props {
  readonly id: ArtefactId;
  /** Null: another word says how it stands. */
  readonly state: ArtefactState | null;
  readonly author: string;
  readonly at: string;
  readonly editing: Editing<unknown>;
  /** What else is looked at every day, on the same line. */
  readonly children?: ReactNode;
}

/** How things stand with an artefact's versions: the save state, always visible, and what one can do about it. */
export function SaveBar({ id, state, author, at, editing, children }: Props) {
  const { project, canEdit } = useFrame();
  const [noting, setNoting] = useState(false);
  const [note, setNote] = useState('');
  const { save, dirty } = editing;
  const startNote = useCallback(() => setNoting(true), []);
  useEditCommands(id, editing, canEdit, startNote);
  const foreseen = useForeseen(project);
  const setState = (next: ArtefactState): void => void foreseen({ ids: [id], head: (head) => ({ ...head, state: next }) }, () => call('setState', { params: { project, id }, body: { state: next } }, { commandId: crypto.randomUUID() })).catch(tellFailure);
  return (
    <div className="text-xs text-ink2">
      <div className="flex flex-wrap items-center gap-2">
        {state !== null && <Choose label="State" value={state} options={options(STATE_WORD).filter((o) => o.value !== 'inReview' || state === 'inReview')} onChange={setState} disabled={!canEdit} />}
        {/* As wide when one types as when it is kept: nothing on the page moves from under the pointer. */}
        <span role="status" aria-live="polite" className="min-w-[6.5rem]" title={`Saved by ${author}`}>
          v{editing.version} · <KeepWords keep={editing.keep} saved={`saved ${ago(at)}${children === undefined ? ` by ${author}` : ''}`} />
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
        {children}
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
      {editing.theirs !== null && <BothSides name={id} theirs={editing.theirs} mine={editing.content} onSettle={editing.settle} />}
    </div>
  );
}
