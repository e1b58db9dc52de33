import { roleReaches, type Member, type NewReview } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { useMembers, useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, TickIn, TextBox, TextArea, Labelled } from '../look/index.ts';

type Terms = Omit<NewReview, 'ids'>;

interface Props {
  readonly begun: Terms;
  /** What the button says. */
  readonly word: string;
  readonly children?: ReactNode;
  /** Answers whether it was done; what was not stays in the form. */
  readonly onTake: (terms: Terms) => Promise<boolean>;
  readonly onClose: () => void;
  readonly canTake?: boolean;
}

/** What a review is called, whom it asks and until when. */
export function ReviewTerms({ begun, word, children, onTake, onClose, canTake = true }: Props) {
  const { project } = useFrame();
  const members = useMembers(project).data;
  const [terms, setTerms] = useState(begun);
  const [busy, setBusy] = useState(false);
  const put = (part: Partial<Terms>): void => setTerms((now) => ({ ...now, ...part }));
  const ready = canTake && !busy && terms.title.trim() !== '' && terms.people.length > 0;
  return (
    <form
      className="space-y-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (!ready) return;
        setBusy(true);
        void onTake({ ...terms, title: terms.title.trim(), note: terms.note.trim() }).then((done) => (done ? onClose() : setBusy(false)));
      }}
    >
      {children}
      <Labelled label="Title">
        <TextBox className="w-full" maxLength={300} value={terms.title} onChange={(text) => put({ title: text })} />
      </Labelled>
      <People members={members ?? []} chosen={terms.people} onChoose={(people) => put({ people: [...people] })} />
      <Labelled label="Until" hint="may stay empty">
        <TextBox type="date" className="w-44" value={terms.due ?? ''} onChange={(text) => put({ due: text === '' ? null : text })} />
      </Labelled>
      <Labelled label="Note" hint="what to look at">
        <TextArea className="w-full" rows={2} maxLength={2000} value={terms.note} onChange={(text) => put({ note: text })} />
      </Labelled>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button type="submit" look="accent" disabled={!ready}>
          {word}
        </Button>
      </div>
    </form>
  );
}

interface PeopleProps {
  readonly members: readonly Member[];
  readonly chosen: readonly string[];
  readonly onChoose: (people: readonly string[]) => void;
}

function People({ members, chosen, onChoose }: PeopleProps) {
  const { project } = useFrame();
  const agreement = useSettings(project).data?.settings.agreement;
  return (
    <fieldset>
      <legend className="font-semibold">Who is asked</legend>
      <ul className="mt-0.5 max-h-56 overflow-y-auto">
        {members.map(({ id, name, role }) => (
          <li key={id}>
            <TickIn item={id} of={chosen} onChange={onChoose}>
              {name}
              {agreement !== undefined && !roleReaches(role, agreement.role) && <span className="text-ink2">may object, but not agree: {role}</span>}
            </TickIn>
          </li>
        ))}
      </ul>
      {agreement !== undefined && (
        <p className="mt-0.5 text-xs text-ink2">
          {agreement.needed === 'all' ? 'Everybody who is asked must agree' : agreement.needed === 1 ? 'One of them must agree' : `${agreement.needed} of them must agree`}
          {agreement.authors ? '.' : '; who wrote something does not count for it.'} The project’s settings say so.
        </p>
      )}
    </fieldset>
  );
}
