import { zodResolver } from '@hookform/resolvers/zod';
import type { Session } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { call, failureSentence, keys } from '../api/index.ts';
import { initials } from '../frame/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';
import { Field } from './Field.tsx';
import { ForgottenPassword } from './ForgottenPassword.tsx';

const form = z.object({ email: z.email('must be an e-mail address'), password: z.string().min(1, 'is needed') });

/** Sign in: the demo's people by a click, everyone else by address and password. */
export function SignIn({ session }: { readonly session: Session }) {
  const client = useQueryClient();
  const [failure, setFailure] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(form) });
  const enter = (body: { email: string; password: string } | { demoPerson: string }): Promise<void> =>
    call('signIn', { body }).then(
      (next) => void client.setQueryData(keys.session, next),
      (error: unknown) => setFailure(failureSentence(error)),
    );
  return (
    <Cover>
      {session.demoPeople.length > 0 && (
        <section>
          <h1 className="font-serif text-xl font-semibold">Look around as one of them</h1>
          <p className="mt-1 text-sm text-ink2">This is the demo: its people are made up and need no password.</p>
          {session.openToAll && <p className="mt-2 rounded-field bg-brick-wash px-3 py-2 text-base font-semibold text-brick">Open to all: whoever reaches this server signs in without a password.</p>}
          <ul className="mt-4 divide-y divide-rule border-y border-rule">
            {session.demoPeople.map((person) => (
              <li key={person.id}>
                <button type="button" className="flex w-full items-center gap-3 px-1 py-2 text-left hover:bg-blue-wash" onClick={() => void enter({ demoPerson: person.id })}>
                  <span aria-hidden="true" className="grid size-8 place-items-center rounded-full bg-blue-wash text-xs font-semibold text-blue">
                    {initials(person.name)}
                  </span>
                  <span className="font-semibold">{person.name}</span>
                  <span className="text-sm text-ink2">{person.job}</span>
                  <span className="ml-auto text-xs text-ink2">{person.role}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <form className={session.demoPeople.length > 0 ? 'mt-7' : ''} onSubmit={handleSubmit(enter)} noValidate>
        <h2 className="font-serif text-lg font-semibold">{session.demoPeople.length > 0 ? 'Or with an account' : 'Sign in'}</h2>
        <div className={session.demoPeople.length > 0 ? 'grid grid-cols-2 gap-4' : ''}>
          <Field label="E-mail address" type="email" autoComplete="username" error={formState.errors.email?.message} {...register('email')} />
          <Field label="Password" type="password" autoComplete="current-password" error={formState.errors.password?.message} {...register('password')} />
        </div>
        {failure !== null && (
          <p role="alert" className="mt-3 text-sm text-brick">
            {failure}
          </p>
        )}
        <Button type="submit" look="accent" className="mt-4" disabled={formState.isSubmitting}>
          Sign in
        </Button>
      </form>
      <ForgottenPassword session={session} />
    </Cover>
  );
}
