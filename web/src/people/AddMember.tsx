import { zodResolver } from '@hookform/resolvers/zod';
import { ROLES, newMemberSchema, type Member, type NewMember } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { RefusedCall, call, tellFailure, useSession } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Labelled } from '../look/index.ts';
import { Field } from './Field.tsx';
import { Invite } from './Invite.tsx';
import { NewPasswordField } from './NewPasswordField.tsx';

/** Adds somebody to the project: with a new account, or as they are when they have one. */
export function AddMember({ project }: { readonly project: string }) {
  const { person } = useFrame();
  const session = useSession().data;
  if (person.demo && session?.openToAll !== true) {
    return (
      <div className="p-7">
        <h2 className="font-serif text-xl font-semibold">Add someone</h2>
        <p className="mt-2 text-sm text-ink2">
          In this demo everybody signs in by a click, and accounts with passwords would end that. Start Caderno with <code className="font-mono text-xs">npm start -- --empty</code> for real work, or with <code className="font-mono text-xs">npm start -- --demo</code> to have both.
        </p>
      </div>
    );
  }
  if (session?.sendsMail !== true) return <AddForm project={project} />;
  return (
    <>
      <Invite project={project} />
      <details className="border-t border-rule">
        <summary className="cursor-pointer px-7 py-4 text-sm text-ink2">Or make the account yourself, with a first password that you tell them</summary>
        <AddForm project={project} />
      </details>
    </>
  );
}

function AddForm({ project }: { readonly project: string }) {
  const client = useQueryClient();
  const [known, setKnown] = useState<NewMember | null>(null);
  const { register, handleSubmit, formState, reset } = useForm({ resolver: zodResolver(newMemberSchema), defaultValues: { role: 'analyst' } });
  const done = (member: Member): Promise<void> => {
    toast.success(`${member.name} is in the project now, as ${member.role}.`);
    setKnown(null);
    reset();
    return client.invalidateQueries({ queryKey: [project, 'members'] });
  };
  const add = (body: NewMember): Promise<void> =>
    call('addMember', { params: { project }, body }).then(done, (error: unknown) => {
      if (error instanceof RefusedCall && error.refusal.code === 'person_exists') setKnown(body);
      else tellFailure(error);
    });
  const join = ({ email, role }: NewMember): void => void call('joinMember', { params: { project }, body: { email, role } }).then(done, tellFailure);
  return (
    <form className="p-7" onSubmit={handleSubmit(add)} onChange={() => setKnown(null)} noValidate>
      <h2 className="font-serif text-xl font-semibold">Add someone</h2>
      <Field label="Name" error={formState.errors.name && 'is needed'} {...register('name')} />
      <Field label="E-mail address" type="email" error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
      <NewPasswordField label="First password" error={formState.errors.password !== undefined} field={register('password')} />
      <Labelled label="Role" className="mt-3 text-sm">
        <select className="field-boxed w-full" {...register('role')}>
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </Labelled>
      {known !== null && (
        <div role="alert" className="mt-4 rounded-field bg-ochre-wash px-4 py-3 text-sm text-ochre-ink">
          <p>{known.email} has an account already. It keeps its name and password.</p>
          <Button className="mt-2" onClick={() => join(known)}>{`Add it as ${known.role}`}</Button>
        </div>
      )}
      <Button type="submit" look="accent" className="mt-5" disabled={formState.isSubmitting}>
        Add
      </Button>
    </form>
  );
}
