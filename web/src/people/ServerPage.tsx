import type { Account } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, failureSentence, tellFailure } from '../api/index.ts';
import { Spread } from '../frame/index.ts';
import { Button, Section, ShownOnce, TextButton, ago, dateAndTime, TextArea } from '../look/index.ts';
import { PersonJournal } from './PersonJournal.tsx';
import { ServerStanding } from './ServerStanding.tsx';

const ACCOUNTS = ['server', 'accounts'] as const;
const HOSTS = ['server', 'hosts'] as const;

/** What administrators of the server look after: how it stands, accounts, outside hosts, the journal of people. */
export function ServerPage() {
  return (
    <Spread
      chapter="server"
      leftShare={60}
      leftLabel="Accounts"
      rightLabel="Hosts and journal"
      left={<Accounts />}
      right={
        <div className="px-7 pb-12 pt-2">
          <ServerStanding />
          <OutsideHosts />
          <PersonJournal title="Journal of people" queryKey={['server', 'journal']} read={(before) => call('listPersonEvents', { query: before === undefined ? {} : { before } })} />
        </div>
      }
    />
  );
}

function Accounts() {
  const { data: accounts, error } = useQuery({ queryKey: ACCOUNTS, queryFn: () => call('listAccounts'), retry: false });
  return (
    <div className="p-7">
      <h1 className="font-serif text-2xl font-semibold">Accounts of this server</h1>
      {error !== null && <p className="mt-3 text-brick">{failureSentence(error)}</p>}
      <ul className="mt-4 divide-y divide-rule border-t border-ink" aria-label="Accounts">
        {(accounts ?? []).map((account) => (
          <AccountLine key={account.id} account={account} />
        ))}
      </ul>
      <p className="mt-3 text-xs text-ink2">New accounts are made on the page People of a project.</p>
    </div>
  );
}

function AccountLine({ account }: { readonly account: Account }) {
  const client = useQueryClient();
  const [link, setLink] = useState<{ readonly address: string; readonly endsAt: string } | null>(null);
  const change = (body: { active?: boolean; administrator?: boolean }): void => {
    call('changeAccount', { params: { person: account.id }, body }).then(() => client.invalidateQueries({ queryKey: ['server'] }), tellFailure);
  };
  const makeLink = (): void => {
    call('makeResetLink', { params: { person: account.id }, body: {} }).then(({ token, endsAt }) => {
      setLink({ address: `${window.location.origin}/reset#${token}`, endsAt });
      return client.invalidateQueries({ queryKey: ['server', 'journal'] });
    }, tellFailure);
  };
  const notes = [account.email, ...(account.administrator ? ['administrator of the server'] : []), account.projects === 1 ? '1 project' : `${account.projects} projects`, account.lastSignIn === null ? 'never signed in by password' : `signed in ${ago(account.lastSignIn)}`];
  return (
    <li className="py-2.5 text-sm">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className={`font-semibold ${account.active ? '' : 'text-ink2 line-through'}`}>{account.name}</span>
        {!account.active && <span className="text-xs text-brick">not active</span>}
        {account.demo ? (
          <span className="text-xs text-ink2">one of the demo’s people</span>
        ) : (
          <span className="ml-auto flex flex-wrap gap-x-4">
            <TextButton aria-label={`Link for a new password of ${account.name}`} onClick={makeLink}>
              link for a new password
            </TextButton>
            <TextButton onClick={() => change({ administrator: !account.administrator })}>{account.administrator ? 'no administrator any more' : 'make administrator'}</TextButton>
            <TextButton aria-label={`${account.active ? 'Deactivate' : 'Bring back'} ${account.name}`} onClick={() => change({ active: !account.active })}>
              {account.active ? 'deactivate' : 'bring back'}
            </TextButton>
          </span>
        )}
      </div>
      <div className="text-xs text-ink2">{notes.join(' · ')}</div>
      {link !== null && <ShownOnce words={`This link for ${account.name} works once, until ${dateAndTime(link.endsAt)}, and is not shown again.`} label={`The link for ${account.name}`} value={link.address} />}
    </li>
  );
}

function OutsideHosts() {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: HOSTS, queryFn: () => call('readOutsideHosts'), retry: false });
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (data?.hosts ?? []).join('\n');
  const save = (): void => {
    const hosts = shown.split(/[\s,]+/).filter((host) => host !== '');
    call('saveOutsideHosts', { body: { hosts } }).then((saved) => {
      client.setQueryData(HOSTS, saved);
      setText(null);
      toast.success('Saved.');
      return client.invalidateQueries({ queryKey: ['server', 'journal'] });
    }, tellFailure);
  };
  return (
    <Section title="Hosts that trackers may have">
      <p className="mt-2 text-sm text-ink2">Caderno asks no other host. One a line, with a port where it is not the usual one: tracker.example, 10.1.2.3:8080.</p>
      <TextArea aria-label="Hosts that trackers may have" rows={4} value={shown} onChange={setText} className="mt-2 w-full font-mono text-xs" />
      <Button className="mt-2" disabled={text === null} onClick={save}>
        Save the hosts
      </Button>
    </Section>
  );
}
