import { zodResolver } from '@hookform/resolvers/zod';
import { setUpSchema, type SetUp as NewAdministrator } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { call, failureSentence, keys } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';
import { Field } from './Field.tsx';
import { NewPasswordField } from './NewPasswordField.tsx';

/** First start without the demo: make the first administrator. */
export function SetUp() {
  const client = useQueryClient();
  const [failure, setFailure] = useState<string | null>(null);
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(setUpSchema) });
  const create = (body: NewAdministrator): Promise<void> =>
    call('setUp', { body }).then(
      (session) => void client.setQueryData(keys.session, session),
      (error: unknown) => setFailure(failureSentence(error)),
    );
  return (
    <Cover>
      <form onSubmit={handleSubmit(create)} noValidate>
        <h1 className="font-serif text-xl font-semibold">Make the first administrator</h1>
        <p className="mt-1 text-sm text-ink2">Nobody has an account here yet. This one can make projects and add everyone else.</p>
        <Field label="Word from the start" autoComplete="off" hint="Caderno printed it when it was started." error={formState.errors.word && 'is needed'} {...register('word')} />
        <Field label="Name" autoComplete="name" error={formState.errors.name && 'is needed'} {...register('name')} />
        <Field label="E-mail address" type="email" autoComplete="username" error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
        <NewPasswordField label="Password" error={formState.errors.password !== undefined} field={register('password')} />
        {failure !== null && (
          <p role="alert" className="mt-2 text-sm text-brick">
            {failure}
          </p>
        )}
        <Button type="submit" look="accent" className="mt-3" disabled={formState.isSubmitting}>
          Make the account
        </Button>
      </form>
    </Cover>
  );
}
