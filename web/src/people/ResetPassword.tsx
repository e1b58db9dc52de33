import { zodResolver } from '@hookform/resolvers/zod';
import { resetPasswordSchema } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { call, failureSentence, keys } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';
import { NewPasswordField } from './NewPasswordField.tsx';

/** Where a one-time link leads: a new password is set and one is signed in. The link's word stands behind the # and never reaches a log. */
export function ResetPassword() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const token = window.location.hash.slice(1);
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(resetPasswordSchema), defaultValues: { token, password: '' } });
  const set = (body: { token: string; password: string }): Promise<void> =>
    call('resetPassword', { body }).then(
      (session) => {
        client.setQueryData(keys.session, session);
        void navigate('/', { replace: true });
      },
      (error: unknown) => setFailure(failureSentence(error)),
    );
  return (
    <Cover>
      <form onSubmit={handleSubmit(set)} noValidate>
        <h1 className="font-serif text-xl font-semibold">Set a new password</h1>
        <p className="mt-1 text-sm text-ink2">This link works once. All places where you are signed in are signed out.</p>
        <NewPasswordField label="New password" error={formState.errors.password !== undefined} field={register('password')} />
        {(failure !== null || formState.errors.token !== undefined) && (
          <p role="alert" className="mt-2 text-sm text-brick">
            {failure ?? 'This link is not whole. Copy all of it from where you got it.'}
          </p>
        )}
        <Button type="submit" look="accent" className="mt-3" disabled={formState.isSubmitting}>
          Set it and sign in
        </Button>
      </form>
    </Cover>
  );
}
