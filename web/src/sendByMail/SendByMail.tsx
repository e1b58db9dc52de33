import { LIMITS, sendByMailSchema, type SendByMail as Sent } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useMembers, useSession } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Busy, Button, Dialog, countOf, TickIn, TextBox, TextArea, Labelled } from '../look/index.ts';

interface Props {
  readonly of: Sent['of'];
  /** What is sent, as a part of a sentence. */
  readonly words: string;
  readonly onClose: () => void;
}

/** Sends an artefact or a list to people of the project or to addresses, with a note and a link; one mail each. */
export function SendByMail({ of, words, onClose }: Props) {
  const { project, canEdit, person } = useFrame();
  const session = useSession().data;
  const members = (useMembers(project).data ?? []).filter((m) => m.id !== person.id);
  const client = useQueryClient();
  const navigate = useNavigate();
  const [people, setPeople] = useState<readonly string[]>([]);
  const [outside, setOutside] = useState('');
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  // Sent again after an answer that never came, it is the same command: nobody gets it twice.
  const [commandId] = useState(() => crypto.randomUUID());
  const addresses = outside.split(/[\s,;]+/).filter((a) => a !== '');
  const body: Sent = { to: [...people.map((id) => ({ person: id })), ...addresses.map((a) => ({ address: a }))], of, note };
  const wrong = addresses.filter((a) => !sendByMailSchema.safeParse({ to: [{ address: a }], of, note: '' }).success);
  const ready = !busy && body.to.length > 0 && body.to.length <= LIMITS.recipients && wrong.length === 0;
  const send = async (): Promise<void> => {
    setBusy(true);
    try {
      client.setQueryData([project, 'mails'], await call('sendByMail', { params: { project }, body }, { commandId }));
      toast.success(`${countOf(body.to.length, 'mail')} on the way.`, { action: { label: 'Mails you sent', onClick: () => void navigate(address.mails(project)) } });
      onClose();
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  if (session?.sendsMail === false) {
    return (
      <Dialog title="Send by mail" onClose={onClose}>
        <p className="text-sm">This server sends no mail. Whoever runs it names a mail server when it is started. Until then copy the address of the page, and send that.</p>
      </Dialog>
    );
  }
  return (
    <Dialog title="Send by mail" onClose={onClose}>
      <form
        className="space-y-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void send();
        }}
      >
        <p className="text-ink2">A mail with your note, what is sent ({words}) and a link to it.</p>
        <fieldset>
          <legend className="font-semibold">To people of the project</legend>
          <ul className="mt-0.5 grid max-h-44 grid-cols-2 gap-x-4 overflow-y-auto max-phone:grid-cols-1" tabIndex={0} aria-label="People of the project">
            {members.map(({ id, name }) => (
              <li key={id}>
                <TickIn item={id} of={people} onChange={setPeople}>
                  {name}
                </TickIn>
              </li>
            ))}
          </ul>
        </fieldset>
        {canEdit && (
          <Labelled label="And to these addresses" hint="of people outside, with commas between them">
            <TextBox className="w-full" value={outside} onChange={setOutside} aria-invalid={wrong.length > 0} />
            {wrong.length > 0 && <span className="mt-0.5 block text-xs text-brick">Not an e-mail address: {wrong.join(', ')}</span>}
          </Labelled>
        )}
        <Labelled label="Note">
          <TextArea className="w-full" rows={4} maxLength={LIMITS.note} value={note} onChange={setNote} />
        </Labelled>
        <div className="flex flex-wrap items-center justify-end gap-2">
          <Link to={address.mails(project)} className="mr-auto text-ink2 underline decoration-rule2 underline-offset-2" onClick={onClose}>
            Mails you sent
          </Link>
          {busy && <Busy>Writing …</Busy>}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={!ready}>
            Send
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
