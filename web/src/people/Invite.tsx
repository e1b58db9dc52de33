import { zodResolver } from '@hookform/resolvers/zod';
import { ROLES, newInvitationSchema, type Invitation, type ResponseOf } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { call, tellFailure, useSession } from '../api/index.ts';
import { Button, Section, TextButton, ago, dateAndTime, Labelled } from '../look/index.ts';
import { Field } from './Field.tsx';

/** A mail is taken by the mail server soon, or says why not. */
const EVERY_MS = 4_000;

/** Invites somebody by mail, and shows the invitations that wait. */
export function Invite({ project }: { readonly project: string }) {
  const client = useQueryClient();
  const page = useSession().data?.mailPage ?? null;
  const { register, handleSubmit, formState, reset } = useForm({ resolver: zodResolver(newInvitationSchema), defaultValues: { email: '', role: 'analyst' as const } });
  const show = (invitations: Invitation[]): void => void client.setQueryData(keyOf(project), invitations);
  const done = ({ joined, invitations }: ResponseOf<'invite'>): Promise<void> => {
    show(invitations);
    toast.success(joined === null ? 'The invitation is on its way.' : `${joined.name} has an account already, and is in the project now, as ${joined.role}.`);
    reset();
    return client.invalidateQueries({ queryKey: [project, 'members'] });
  };
  return (
    <div className="p-7">
      <form onSubmit={handleSubmit((body) => call('invite', { params: { project }, body }).then(done, tellFailure))} noValidate>
        <h2 className="font-serif text-xl font-semibold">Invite someone</h2>
        <p className="mt-1 text-sm text-ink2">They get a mail with a link by which they choose their name and a password. Whoever has an account is in the project at once.</p>
        <Field label="E-mail address" type="email" error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
        <Labelled label="Role" className="mt-3 text-sm">
          <select className="field-boxed w-full" {...register('role')}>
            {ROLES.map((role) => (
              <option key={role}>{role}</option>
            ))}
          </select>
        </Labelled>
        <Button type="submit" look="accent" className="mt-4" disabled={formState.isSubmitting}>
          Invite
        </Button>
        {page !== null && (
          <a href={page} target="_blank" rel="noreferrer" className="ml-4 text-sm underline decoration-rule2 underline-offset-2">
            Mail is simulated here: read it
          </a>
        )}
      </form>
      <Waiting project={project} onWithdrawn={show} onAgain={(invitation) => void call('invite', { params: { project }, body: { email: invitation.email, role: invitation.role } }).then(done, tellFailure)} />
    </div>
  );
}

const keyOf = (project: string) => [project, 'members', 'invitations'];

interface WaitingProps {
  readonly project: string;
  readonly onWithdrawn: (left: Invitation[]) => void;
  readonly onAgain: (invitation: Invitation) => void;
}

function Waiting({ project, onWithdrawn, onAgain }: WaitingProps) {
  const { data: invitations = [] } = useQuery({ queryKey: keyOf(project), queryFn: () => call('listInvitations', { params: { project } }), refetchInterval: (query) => (query.state.data?.some((i) => i.mail?.state === 'waiting') === true ? EVERY_MS : false) });
  if (invitations.length === 0) return null;
  return (
    <Section title="Invited, not here yet">
      <ul className="divide-y divide-rule text-sm" aria-label="Invited, not here yet">
        {invitations.map((invitation) => (
          <li key={invitation.id} className="py-2">
            <span className="flex flex-wrap items-baseline gap-x-3">
              <strong className="min-w-0 break-all font-semibold">{invitation.email}</strong> as {invitation.role}
              <span className="ml-auto flex gap-3">
                <TextButton aria-label={`Invite ${invitation.email} again`} onClick={() => onAgain(invitation)}>
                  again
                </TextButton>
                <TextButton aria-label={`Withdraw the invitation of ${invitation.email}`} onClick={() => call('withdrawInvitation', { params: { project, invitation: invitation.id } }).then(onWithdrawn, tellFailure)}>
                  withdraw
                </TextButton>
              </span>
            </span>
            <span className="block text-xs text-ink2">
              by {invitation.by} {ago(invitation.madeAt)}, until {dateAndTime(invitation.endsAt)}. {mailWords(invitation)}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function mailWords({ mail }: Invitation): string {
  if (mail === null) return '';
  if (mail.state === 'sent') return 'The mail was sent.';
  return mail.answer === '' ? 'The mail is about to be sent.' : `The mail ${mail.state === 'waiting' ? 'waits' : 'was not sent'}. The mail server: ${mail.answer}`;
}
