import { kindOfId, type ArtefactId, type ArtefactState } from '@caderno/core/artefacts';
import { isReviewable } from '@caderno/core/reviews';
import { useCallback, useState, type ReactNode } from 'react';
import { call, tellFailure, useForeseen, useSettings, withState } from '../api/index.ts';
import { AskReview } from '../askReview/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, STATE_WORD, SplitButton, ago, options, TextBox } from '../look/index.ts';
import { BothSides } from './BothSides.tsx';
import type { Editing, KeepState } from './editing.ts';
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

const OTHERS = [
  { value: 'note', name: 'Save with a note' },
  { value: 'discard', name: 'Discard what is not saved' },
] as const;

/**
 * How things stand with an artefact's versions: the save state, always visible, and what one can do about it. Its line
 * is as long while one types as when all is saved: nothing on the page moves from under the pointer.
 */
export function SaveBar({ id, state, author, at, editing, children }: Props) {
  const { project, canEdit } = useFrame();
  const [noting, setNoting] = useState(false);
  const { save, dirty } = editing;
  const startNote = useCallback(() => setNoting(true), []);
  useEditCommands(id, editing, canEdit, startNote);
  const foreseen = useForeseen(project);
  const [asking, setAsking] = useState(false);
  const byHand = useSettings(project).data?.settings.agreement.byHand ?? true;
  const setState = (next: ArtefactState): void => {
    if (next === 'inReview') setAsking(true);
    else void foreseen({ ids: [id], head: (head) => withState(head, next) }, () => call('setState', { params: { project, id }, body: { state: next } }, { commandId: crypto.randomUUID() })).catch(tellFailure);
  };
  return (
    <div className="text-xs text-ink2">
      <div className="flex items-start gap-2">
        <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-2 gap-y-1.5">
          {state !== null && <Choose label="State" value={state} options={options(STATE_WORD).filter((o) => o.value === state || (o.value === 'inReview' ? isReviewable(kindOfId(id)) : o.value !== 'agreed' || byHand))} onChange={setState} disabled={!canEdit} />}
          <span role="status" aria-live="polite" className={isUsual(editing.keep) ? 'w-32 truncate' : ''} title={`Saved ${ago(at)} by ${author}`}>
            v{editing.version} · <KeepWords keep={editing.keep} saved={`saved ${ago(at)}`} />
          </span>
          {children}
        </div>
        {!canEdit && dirty && (
          // Begun while one could still save it.
          <Button onClick={editing.discard} className="print:hidden">
            Discard my draft
          </Button>
        )}
        {canEdit && (
          <div className="flex min-w-[6.25rem] justify-end print:hidden">
            {dirty && <SplitButton label={`Save v${editing.version + 1}`} onPress={() => void save('')} others="Other ways to end this edit" options={OTHERS} onPick={(way) => (way === 'note' ? startNote() : editing.discard())} />}
          </div>
        )}
      </div>
      {asking && <AskReview ids={[id]} onClose={() => setAsking(false)} />}
      {noting && <NoteForm onSave={save} onClose={() => setNoting(false)} />}
      {editing.theirs !== null && <BothSides name={id} theirs={editing.theirs} mine={editing.content} onSettle={editing.settle} />}
    </div>
  );
}

/** Said in a few words, whose room is kept. */
function isUsual({ kind }: KeepState): boolean {
  return kind === 'version' || kind === 'typing' || kind === 'kept';
}

function NoteForm({ onSave, onClose }: { readonly onSave: Editing<unknown>['save']; readonly onClose: () => void }) {
  const [note, setNote] = useState('');
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onSave(note);
        onClose();
      }}
    >
      <TextBox autoFocus aria-label="Note on this version" placeholder="What changed, and why" maxLength={2000} value={note} onChange={setNote} className="min-w-0 flex-1" />
      <Button type="submit">Save</Button>
      <Button onClick={onClose}>Cancel</Button>
    </form>
  );
}
