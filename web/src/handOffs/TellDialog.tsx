import { personalShares, type PersonalShare } from '@caderno/core/handOffs';
import { LIMITS, sendByMailSchema, type HandOff, type SendByMail } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, failureSentence, useMembers, useSession } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Busy, Button, Dialog, countOf, durationOf, Tick, TextArea, TextBox, Labelled } from '../look/index.ts';

/** What became of a mail to somebody. */
type Told = 'sent' | { readonly refused: string };

/** Tells each who executes something by hand of their own part, by mail: people of the project at their address, others at the one that is written here. */
export function TellDialog({ handOff, onClose }: { readonly handOff: HandOff; readonly onClose: () => void }) {
  const { project } = useFrame();
  const client = useQueryClient();
  const sendsMail = useSession().data?.sendsMail !== false;
  const members = useMembers(project).data;
  const shares = personalShares(handOff.lines).filter((share) => share.person !== '');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [written, setWritten] = useState<Readonly<Record<string, string>>>({});
  const [note, setNote] = useState('');
  const [told, setTold] = useState<Readonly<Record<string, Told>>>({});
  const [busy, setBusy] = useState(false);
  // Sent again after an answer that never came, each is the same command: nobody gets it twice.
  const [commands] = useState(() => new Map(shares.map((s) => [s.person, crypto.randomUUID()])));
  const knownAs = (person: string): string | null => {
    const known = (members ?? []).filter((m) => m.name === person);
    // A name that two have is nobody's.
    return known.length === 1 ? (known[0]?.id ?? null) : null;
  };
  const toOf = (person: string): SendByMail['to'] | null => {
    const known = knownAs(person);
    if (known !== null) return [{ person: known }];
    const to = [{ address: (written[person] ?? '').trim() }];
    return sendByMailSchema.safeParse({ to, of: ofPart(handOff, person), note: '' }).success ? to : null;
  };
  const asked = shares.filter((s) => !left.has(s.person) && told[s.person] !== 'sent');
  const ready = !busy && asked.length > 0 && asked.every((s) => toOf(s.person) !== null);
  const send = async (): Promise<void> => {
    setBusy(true);
    for (const { person } of asked) {
      const to = toOf(person);
      if (to === null) continue;
      try {
        client.setQueryData([project, 'mails'], await call('sendByMail', { params: { project }, body: { to, of: ofPart(handOff, person), note } }, { commandId: commands.get(person) ?? crypto.randomUUID() }));
        setTold((before) => ({ ...before, [person]: 'sent' }));
      } catch (error) {
        setTold((before) => ({ ...before, [person]: { refused: failureSentence(error) } }));
      }
    }
    setBusy(false);
  };
  if (!sendsMail) {
    return (
      <Dialog title="Tell each by mail" onClose={onClose}>
        <p className="text-sm">This server sends no mail. Whoever runs it names a mail server when it is started. Until then save each part as a file, and send that.</p>
      </Dialog>
    );
  }
  return (
    <Dialog title="Tell each by mail" onClose={onClose} wide>
      <p className="text-sm text-ink2">Each gets a mail of their own: what they execute by hand, until when, and where it is saved as a file.</p>
      {shares.length === 0 && <p className="mt-3 text-sm">Nobody was chosen to execute any of it.</p>}
      <ul aria-label="Who is told" className="mt-3 text-sm">
        {shares.map((share) => (
          <Line
            key={share.person}
            share={share}
            isAsked={!left.has(share.person)}
            address={members === undefined || knownAs(share.person) !== null ? null : (written[share.person] ?? '')}
            told={told[share.person]}
            onAsk={(is) => setLeft(new Set(is ? [...left].filter((p) => p !== share.person) : [...left, share.person]))}
            onAddress={(text) => setWritten({ ...written, [share.person]: text })}
          />
        ))}
      </ul>
      <Labelled label="Note" className="mt-3 text-sm">
        <TextArea className="w-full" rows={3} maxLength={LIMITS.note} value={note} onChange={setNote} />
      </Labelled>
      <p className="mt-3 flex flex-wrap items-center justify-end gap-2">
        <Link to={address.mails(project)} className="mr-auto text-sm text-ink2 underline decoration-rule2 underline-offset-2" onClick={onClose}>
          Mails you sent
        </Link>
        {busy && <Busy>Writing …</Busy>}
        <Button onClick={onClose}>{Object.keys(told).length > 0 ? 'Close' : 'Cancel'}</Button>
        <Button look="accent" disabled={!ready} onClick={() => void send()}>
          Send {countOf(asked.length, 'mail')}
        </Button>
      </p>
    </Dialog>
  );
}

function ofPart({ number }: HandOff, person: string): SendByMail['of'] {
  return { what: 'handOff', number, person };
}

interface LineProps {
  readonly share: PersonalShare;
  readonly isAsked: boolean;
  /** Null: it is known. */
  readonly address: string | null;
  readonly told: Told | undefined;
  readonly onAsk: (is: boolean) => void;
  readonly onAddress: (text: string) => void;
}

function Line({ share: { person, instances, minutes }, isAsked, address: written, told, onAsk, onAddress }: LineProps) {
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
      <Tick checked={isAsked} disabled={told === 'sent'} onChange={onAsk} className="min-w-40 gap-2.5">
        {person}
      </Tick>
      <span className="min-w-36 text-ink2">
        {countOf(instances, 'instance')}
        {minutes > 0 && `, ${durationOf(minutes)}`}
      </span>
      <span className="min-w-0 flex-1">
        {told === 'sent' ? (
          <span role="status" className="text-pine">on the way</span>
        ) : written === null ? (
          <span className="text-ink2">at their address</span>
        ) : (
          <TextBox type="email" aria-label={`E-mail address of ${person}`} placeholder="e-mail address" className="w-full" value={written} disabled={!isAsked} onChange={onAddress} />
        )}
      </span>
      {told !== undefined && told !== 'sent' && <span role="alert" className="w-full text-brick">{told.refused}</span>}
    </li>
  );
}
