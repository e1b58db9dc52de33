import { INBOX_REASONS, MAIL_PACES, type InboxChoices, type InboxReason, type MailPace } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call, failureSentence, tellFailure, useSession } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, Tick, Select } from '../look/index.ts';
import { REASON_WORD } from './entryWords.ts';

const PACE_WORD: Record<MailPace, string> = { atOnce: 'at once', daily: 'once a day', never: 'never' };
const PACES = MAIL_PACES.map((value) => ({ value, name: PACE_WORD[value] }));

/** Chooses what reaches one from now on, and how soon it is mailed as well; each choice counts at once. */
export function ReachesDialog({ onClose }: { readonly onClose: () => void }) {
  const { project, person } = useFrame();
  const client = useQueryClient();
  const sendsMail = useSession().data?.sendsMail === true;
  const queryKey = [project, 'inbox', 'choices'];
  const { data, error } = useQuery({ queryKey, queryFn: () => call('readInboxChoices', { params: { project } }) });
  const choose = async (choices: InboxChoices): Promise<void> => {
    // Seen at once, so that the next choice is made on it.
    client.setQueryData(queryKey, choices);
    try {
      client.setQueryData(queryKey, await call('saveInboxChoices', { params: { project }, body: choices }));
    } catch (failure) {
      tellFailure(failure);
      void client.invalidateQueries({ queryKey });
    }
  };
  return (
    <Dialog title="What reaches you" onClose={onClose} keepsAtOnce>
      {data === undefined ? (
        <p className="text-ink2">{error === null ? 'Reading …' : failureSentence(error)}</p>
      ) : (
        <table className="w-full text-left text-sm">
          <thead className="border-b border-ink text-xs text-ink2">
            <tr>
              <th className="py-1 font-semibold">In your inbox</th>
              {sendsMail && <th className="font-semibold">Mailed as well</th>}
            </tr>
          </thead>
          <tbody className="divide-y divide-rule">
            {INBOX_REASONS.map((reason) => (
              <Choice key={reason} reason={reason} choices={data} sendsMail={sendsMail} onChoose={(choices) => void choose(choices)} />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-3 text-sm text-ink2">You follow what you own, wrote in or are asked, and what you choose: More, on its page. What came in already stays.</p>
      <p className="mt-1 text-sm text-ink2">{sendsMail ? `Mails go to ${person.email}: at once means a few minutes later, once a day in the morning; what you read before is not mailed.` : 'This server sends no mail.'}</p>
      <div className="mt-4 flex justify-end">
        <Button look="accent" onClick={onClose}>
          Done
        </Button>
      </div>
    </Dialog>
  );
}

interface ChoiceProps {
  readonly reason: InboxReason;
  readonly choices: InboxChoices;
  readonly sendsMail: boolean;
  readonly onChoose: (choices: InboxChoices) => void;
}

function Choice({ reason, choices: { silent, mail }, sendsMail, onChoose }: ChoiceProps) {
  const reaches = !silent.includes(reason);
  return (
    <tr>
      <td>
        <Tick checked={reaches} onChange={() => onChoose({ mail, silent: reaches ? [...silent, reason] : silent.filter((r) => r !== reason) })}>
          {REASON_WORD[reason]}
        </Tick>
      </td>
      {sendsMail && (
        <td>
          <Select aria-label={`Mailed: ${REASON_WORD[reason]}`} className="my-0.5 h-7 py-0" disabled={!reaches} value={reaches ? mail[reason] : 'never'} options={PACES} onChange={(pace) => onChoose({ silent, mail: { ...mail, [reason]: pace } })} />
        </td>
      )}
    </tr>
  );
}
