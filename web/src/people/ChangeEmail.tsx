import { zodResolver } from '@hookform/resolvers/zod';
import { newEmailSchema } from '@caderno/contract';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { call, tellFailure } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Field } from './Field.tsx';

/** Asks for another e-mail address; a link is mailed to it, and until it is opened nothing changes. */
export function ChangeEmail() {
  const [asked, setAsked] = useState<string | null>(null);
  const { register, handleSubmit, formState, reset } = useForm({ resolver: zodResolver(newEmailSchema), defaultValues: { email: '', password: '' } });
  const ask = (body: { email: string; password: string }): Promise<void> => call('changeEmail', { body }).then(() => (setAsked(body.email), reset()), tellFailure);
  return (
    <form className="px-7 pb-7" onSubmit={handleSubmit(ask)} noValidate>
      <h2 className="font-serif text-xl font-semibold">Change your e-mail address</h2>
      <Field label="New e-mail address" type="email" error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
      <Field label="Your password" type="password" autoComplete="current-password" error={formState.errors.password && 'is needed'} {...register('password')} />
      <Button type="submit" className="mt-3" disabled={formState.isSubmitting}>
        Mail a link to it
      </Button>
      {asked !== null && (
        <p role="status" className="mt-3 text-sm">
          A link is on its way to {asked}. Until it is opened you are reached as before.
        </p>
      )}
    </form>
  );
}
