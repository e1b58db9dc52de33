import { zodResolver } from '@hookform/resolvers/zod';
import { acceptInvitationSchema } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { call, failureSentence, keys } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';
import { Field } from './Field.tsx';
import { NewPasswordField } from './NewPasswordField.tsx';

/** Where an invitation leads: an account is made, and one is in the project. The link's word stands behind the # and never reaches a log. */
export function Invited() {
  const token = window.location.hash.slice(1);
  const { data, error } = useQuery({ queryKey: ['invited', token], queryFn: () => call('openInvitation', { body: { token } }), retry: false });
  return (
    <Cover>
      {data === undefined ? (
        <>
          <h1 className="font-serif text-xl font-semibold">{error === null ? 'Opening your invitation …' : 'This invitation opens nothing'}</h1>
          {error !== null && <p className="mt-2 text-sm">{token === '' ? 'The link is not whole. Copy all of it from the mail.' : failureSentence(error)}</p>}
          {error !== null && <Link to="/" className="mt-3 inline-block text-sm underline">Sign in</Link>}
        </>
      ) : (
        <Accept token={token} {...data} />
      )}
    </Cover>
  );
}

function Accept({ token, project, email, role, by }: { readonly token: string; readonly project: string; readonly email: string; readonly role: string; readonly by: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(acceptInvitationSchema), defaultValues: { token, name: '', password: '' } });
  const accept = (body: { token: string; name: string; password: string }): Promise<void> =>
    call('acceptInvitation', { body }).then(
      (session) => {
        client.setQueryData(keys.session, session);
        void navigate('/', { replace: true });
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  return (
    <form onSubmit={handleSubmit(accept)} noValidate>
      <h1 className="font-serif text-xl font-semibold">Welcome to {project}</h1>
      <p className="mt-1 text-sm text-ink2">
        {by} invites you, as {role}. You sign in with {email} from now on.
      </p>
      <Field label="Your name" hint="As the others see it." autoComplete="name" error={formState.errors.name && 'is needed'} {...register('name')} />
      <NewPasswordField label="Password" error={formState.errors.password !== undefined} field={register('password')} />
      {failure !== null && (
        <p role="alert" className="mt-2 text-sm text-brick">
          {failure}
        </p>
      )}
      <Button type="submit" look="accent" className="mt-3" disabled={formState.isSubmitting}>
        Come in
      </Button>
    </form>
  );
}
