import type { MailLine, MailState } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call, tellFailure, useSession } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Empty, TextButton, ago, dateAndTime } from '../look/index.ts';

const STATE_LOOK: Record<MailState, string> = { waiting: 'text-ochre-ink', sent: 'text-pine', refused: 'text-brick' };
/** A mail is taken by the mail server soon, or says why not. */
const EVERY_MS = 4_000;

/** The mails one sent from the project: which were taken, which wait and why, which came back. */
export function MailsPage() {
  const { project } = useFrame();
  const client = useQueryClient();
  const page = useSession().data?.mailPage ?? null;
  const queryKey = [project, 'mails'];
  const { data: mails, error } = useQuery({ queryKey, queryFn: () => call('listMails', { params: { project } }), refetchInterval: (query) => (query.state.data?.some((m) => m.state === 'waiting') === true ? EVERY_MS : false) });
  const show = (left: MailLine[]): void => void client.setQueryData(queryKey, left);
  const params = (mail: MailLine) => ({ params: { project, mail: mail.id } });
  return (
    <div className="h-full overflow-y-auto px-8 py-6 max-phone:px-4">
      <div className="mx-auto max-w-4xl pb-10">
        <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h1 className="font-serif text-2xl font-semibold">Mails you sent</h1>
          <Link to={address.inbox(project)} className="text-sm text-ink2 underline decoration-rule2 underline-offset-2 print:hidden">
            Inbox
          </Link>
          {page !== null && (
            <a href={page} target="_blank" rel="noreferrer" className="ml-auto text-sm underline decoration-rule2 underline-offset-2 print:hidden">
              Mail is simulated here: read it
            </a>
          )}
        </header>
        {mails === undefined && <Loading error={error} />}
        {mails?.length === 0 && <Empty title="No mail yet">A case, a question or a list goes by mail with More, Send by mail on its page.</Empty>}
        <ul className="mt-4 border-t border-ink text-sm empty:hidden" aria-label="Mails you sent">
          {(mails ?? []).map((mail) => (
            <li key={mail.id} className="flex flex-wrap items-baseline gap-x-3 gap-y-0.5 border-b border-rule py-2">
              <span className="min-w-0 flex-1 basis-72">
                <strong className="font-semibold">{mail.to}</strong> <span className="text-ink2">{mail.subject}</span>
              </span>
              <span className={STATE_LOOK[mail.state]} title={dateAndTime(mail.endedAt ?? mail.madeAt)}>
                {standingWords(mail)}
              </span>
              {mail.state !== 'sent' && (
                <span className="flex gap-3 print:hidden">
                  <TextButton aria-label={`Send again to ${mail.to}`} onClick={() => call('sendMailAgain', { ...params(mail), body: {} }).then(show, tellFailure)}>
                    send again
                  </TextButton>
                  <TextButton aria-label={`Take back the mail to ${mail.to}`} onClick={() => call('takeBackMail', params(mail)).then(show, tellFailure)}>
                    take back
                  </TextButton>
                </span>
              )}
              {mail.answer !== '' && mail.state !== 'sent' && <span className="w-full text-xs text-ink2">The mail server: {mail.answer}</span>}
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

function standingWords({ state, tries, nextAt, endedAt, madeAt }: MailLine): string {
  switch (state) {
    case 'sent':
      return `sent ${ago(endedAt ?? madeAt)}`;
    case 'refused':
      return `not sent: given up ${ago(endedAt ?? madeAt)}`;
    case 'waiting':
      return tries === 0 ? 'about to be sent' : `waits: tried ${tries === 1 ? 'once' : `${tries} times`}, again ${nextAt === null ? 'soon' : `at ${dateAndTime(nextAt)}`}`;
  }
}
