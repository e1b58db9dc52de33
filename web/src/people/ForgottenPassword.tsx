import { zodResolver } from '@hookform/resolvers/zod';
import { forgottenSchema, type Session } from '@caderno/contract';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { call, failureSentence } from '../api/index.ts';
import { Button, TextButton } from '../look/index.ts';
import { Field } from './Field.tsx';

/** The way in for whoever does not know their password: a mail, or an administrator where no mail is sent. */
export function ForgottenPassword({ session: { sendsMail, mailPage } }: { readonly session: Session }) {
  const [open, setOpen] = useState(false);
  const [answer, setAnswer] = useState<{ readonly done: boolean; readonly words: string } | null>(null);
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(forgottenSchema), defaultValues: { email: '' } });
  const ask = ({ email }: { email: string }): Promise<void> =>
    call('forgetPassword', { body: { email } }).then(
      () => setAnswer({ done: true, words: `If there is an account with ${email}, a mail with a link for a new password is on its way to it.` }),
      (error: unknown) => setAnswer({ done: false, words: failureSentence(error) }),
    );
  if (!open) {
    return (
      <TextButton className="mt-4 block text-sm" onClick={() => setOpen(true)}>
        Forgotten your password?
      </TextButton>
    );
  }
  if (!sendsMail) return <p className="mt-4 text-sm text-ink2">This server sends no mail. An administrator of it makes a link by which you set a new password.</p>;
  return (
    <form className="mt-5 border-t border-rule pt-2" onSubmit={handleSubmit(ask)} noValidate>
      {answer?.done === true ? (
        <p role="status" className="mt-2 text-sm">
          {answer.words}{' '}
          {mailPage !== null && (
            <a href={mailPage} target="_blank" rel="noreferrer" className="underline">
              Mail is simulated here: read it
            </a>
          )}
        </p>
      ) : (
        <>
          <Field autoFocus label="Your e-mail address" type="email" autoComplete="username" hint="A link for a new password is mailed to it." error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
          {answer !== null && (
            <p role="alert" className="mt-2 text-sm text-brick">
              {answer.words}
            </p>
          )}
          <Button type="submit" className="mt-3" disabled={formState.isSubmitting}>
            Mail me a link
          </Button>
        </>
      )}
    </form>
  );
}
