import type { ServerState } from '@caderno/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call, failureSentence, tellFailure } from '../api/index.ts';
import { Button, Section, ago, countOf, locale } from '../look/index.ts';

const EVERY_MS = 10_000;
const DAY_MS = 86_400_000;
/** A backup that is older is worth a word. */
const OLD_BACKUP_MS = 2 * DAY_MS;

/** How the server stands, for those who look after it. */
export function ServerStanding() {
  const { data: state, error, dataUpdatedAt } = useQuery({ queryKey: ['server', 'state'], queryFn: () => call('readServerState'), refetchInterval: EVERY_MS, retry: false });
  return (
    <Section title="How it stands" aside={state === undefined ? undefined : `Caderno ${state.version}, started ${ago(state.startedAt)}`}>
      {error !== null && <p className="mt-2 text-sm text-brick">{failureSentence(error)}</p>}
      {state !== undefined && (
        <>
        <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5 text-sm">
          {linesOf(state, dataUpdatedAt).map(({ name, words, isBad }) => (
            <div key={name} className="contents">
              <dt className="text-ink2">{name}</dt>
              <dd className={isBad ? 'text-brick' : ''}>{words}</dd>
            </div>
          ))}
        </dl>
        {state.mail.server !== null && <TrialMail />}
        </>
      )}
    </Section>
  );
}

interface Line {
  readonly name: string;
  readonly words: string;
  readonly isBad: boolean;
}

/** What is said of each, and whether somebody should look. */
export function linesOf(state: ServerState, now: number): readonly Line[] {
  const { servers, people, pages, imports, coverageBehind, bytes, attachmentBytes, lastBackup, mail } = state;
  return [
    { name: 'On line', words: `${countOf(people, 'person', 'people')} on ${countOf(pages, 'page')} through this server; ${countOf(servers, 'server')} on this database`, isBad: servers === 0 },
    { name: 'Imports', words: imports.running + imports.waiting === 0 ? 'none' : `${imports.running} running, ${countOf(imports.waiting, 'file')} not imported yet`, isBad: false },
    { name: 'Coverage', words: coverageBehind === 0 ? 'up to date in every project' : `being brought up to date in ${countOf(coverageBehind, 'project')}`, isBad: false },
    { name: 'Stored', words: `${megabytes(bytes)}, of which attached files ${megabytes(attachmentBytes)}`, isBad: false },
    { name: 'Last backup', words: lastBackup === null ? 'none was made with npm run backup' : ago(lastBackup), isBad: lastBackup === null || now - Date.parse(lastBackup) > OLD_BACKUP_MS },
    { name: 'Mail', words: mailWords(mail), isBad: mail.waiting > 0 && mail.lastAnswer !== '' },
  ];
}

function mailWords({ server, from, waiting, refused, lastAnswer }: ServerState['mail']): string {
  if (server === null) return 'none is sent: no mail server was named at the start';
  const left = waiting + refused === 0 ? 'all sent' : [...(waiting > 0 ? [`${countOf(waiting, 'mail')} waiting`] : []), ...(refused > 0 ? [`${countOf(refused, 'mail')} given up this week`] : [])].join(', ');
  return `through ${server}, from ${from}; ${left}${lastAnswer === '' ? '' : `. The mail server said last: ${lastAnswer}`}`;
}

/** Sends oneself a mail, to see whether it arrives. */
function TrialMail() {
  const { mutate, isPending } = useMutation({ mutationFn: () => call('sendTrialMail', { body: {} }), onSuccess: () => toast.success('The mail server took it. See whether it arrives.'), onError: tellFailure });
  return (
    <Button className="mt-3" disabled={isPending} onClick={() => mutate()}>
      Send yourself a mail
    </Button>
  );
}

function megabytes(bytes: number): string {
  return `${Math.ceil(bytes / 1024 / 1024).toLocaleString(locale())} MB`;
}
