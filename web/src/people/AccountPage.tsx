import { zodResolver } from '@hookform/resolvers/zod';
import { changePasswordSchema, type SessionLine } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { call, tellFailure, useSession } from '../api/index.ts';
import { Spread, useFrame } from '../frame/index.ts';
import { Button, Choose, LOCALES, Section, TextButton, ago, chooseLocale, dateAndTime, locale, localeExample } from '../look/index.ts';
import { AccessTokens } from './AccessTokens.tsx';
import { ChangeName } from './ChangeName.tsx';
import { ChangeEmail } from './ChangeEmail.tsx';
import { Field } from './Field.tsx';
import { NewPasswordField } from './NewPasswordField.tsx';

const SESSIONS = ['account', 'sessions'] as const;

/** One's own account: where one is signed in, and one's password. */
export function AccountPage() {
  const { person } = useFrame();
  const sendsMail = useSession().data?.sendsMail === true;
  return (
    <Spread
      chapter="account"
      leftShare={55}
      leftLabel="Your account"
      rightLabel="Password"
      left={
        <div className="p-7">
          <h1 className="font-serif text-2xl font-semibold">{person.name}</h1>
          <p className="text-sm text-ink2">{person.email}</p>
          <DatesAndNumbers />
          <Sessions />
          <AccessTokens />
        </div>
      }
      right={
        person.demo ? (
          <p className="p-7 text-ink2">The people of the demo have no passwords.</p>
        ) : (
          <>
            <ChangePassword />
            <ChangeName key={person.name} person={person} />
            {sendsMail && <ChangeEmail />}
          </>
        )
      }
    />
  );
}

/** How dates and numbers are written for one in this browser. */
function DatesAndNumbers() {
  const [now, setNow] = useState(locale);
  const choose = (value: string): void => {
    const chosen = LOCALES.find((known) => known === value);
    chooseLocale(chosen);
    setNow(chosen);
  };
  return (
    <Section title="Dates and numbers">
      <p className="mt-1.5 flex flex-wrap items-center gap-3 text-sm">
        <Choose
          label="Written as"
          showLabel
          value={now ?? ''}
          options={[{ value: '', name: `the browser does: ${localeExample(undefined)}` }, ...LOCALES.map((value) => ({ value, name: localeExample(value) }))]}
          onChange={choose}
        />
        <span className="text-xs text-ink2">in this browser</span>
      </p>
    </Section>
  );
}

function Sessions() {
  const client = useQueryClient();
  const sessions = useQuery({ queryKey: SESSIONS, queryFn: () => call('listSessions') }).data ?? [];
  const end = (session: SessionLine): void => {
    call('endSession', { params: { session: session.id } }).then((left) => client.setQueryData(SESSIONS, left), tellFailure);
  };
  return (
    <Section title="Where you are signed in">
      <ul className="divide-y divide-rule text-sm" aria-label="Where you are signed in">
        {sessions.map((session) => (
          <li key={session.id} className="flex items-center gap-3 py-2">
            <span className="min-w-0 flex-1">
              <span className="block truncate">{browserWords(session.agent)}</span>
              <span className="block text-xs text-ink2" title={session.agent}>
                since {dateAndTime(session.startedAt)}
                {session.current ? '' : `, last seen ${ago(session.seenAt)}`}
              </span>
            </span>
            {session.current ? <span className="text-xs text-pine">here</span> : <TextButton onClick={() => end(session)}>sign out there</TextButton>}
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** What a browser calls itself, short. */
function browserWords(agent: string): string {
  if (agent === '') return 'A program';
  const browser = /(Firefox|Edg|Chrome|Safari)\/[\d.]+/.exec(agent)?.[1] ?? 'A browser';
  const system = /(Windows|Mac OS X|Android|iPhone|iPad|Linux)/.exec(agent)?.[1];
  return `${browser === 'Edg' ? 'Edge' : browser}${system === undefined ? '' : ` on ${system}`}`;
}

function ChangePassword() {
  const client = useQueryClient();
  const { register, handleSubmit, formState, reset } = useForm({ resolver: zodResolver(changePasswordSchema), defaultValues: { current: '', next: '' } });
  const change = (body: { current: string; next: string }): Promise<void> =>
    call('changePassword', { body }).then(() => {
      toast.success('Your password is changed. Everywhere else you are signed out.');
      reset();
      return client.invalidateQueries({ queryKey: SESSIONS });
    }, tellFailure);
  return (
    <form className="p-7" onSubmit={handleSubmit(change)} noValidate>
      <h2 className="font-serif text-xl font-semibold">Change your password</h2>
      <Field label="Present password" type="password" autoComplete="current-password" error={formState.errors.current && 'is needed'} {...register('current')} />
      <NewPasswordField label="New password" error={formState.errors.next !== undefined} field={register('next')} />
      <Button type="submit" look="accent" className="mt-4" disabled={formState.isSubmitting}>
        Change it
      </Button>
    </form>
  );
}
