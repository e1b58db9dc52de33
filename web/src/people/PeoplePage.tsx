import { zodResolver } from '@hookform/resolvers/zod';
import { ROLES, SHORTEST_PASSWORD, newMemberSchema, type NewMember } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { call, tellFailure, useMembers } from '../api/index.ts';
import { Spread, useFrame } from '../frame/index.ts';
import { Button } from '../look/index.ts';
import { Field } from './Field.tsx';

/** The people of a project and, for its administrators, a form to add one. */
export function PeoplePage() {
  const { project, canManage } = useFrame();
  return (
    <Spread chapter="people" leftShare={58} leftLabel="People" rightLabel="Add someone" left={<MemberList project={project} />} right={canManage ? <AddMember project={project} /> : <OnlyAdministrators />} />
  );
}

function MemberList({ project }: { readonly project: string }) {
  const members = useMembers(project).data ?? [];
  return (
    <div className="p-7">
      <h1 className="font-serif text-2xl font-semibold">People</h1>
      <table className="mt-4 w-full text-left text-sm">
        <thead className="border-b border-ink text-xs text-ink2">
          <tr>
            <th className="py-1.5 font-semibold">Name</th>
            <th className="font-semibold">E-mail address</th>
            <th className="font-semibold">Role</th>
          </tr>
        </thead>
        <tbody className="divide-y divide-rule">
          {members.map((member) => (
            <tr key={member.id}>
              <td className="py-2 font-semibold">{member.name}</td>
              <td>{member.email}</td>
              <td>{member.role}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function AddMember({ project }: { readonly project: string }) {
  const client = useQueryClient();
  const { register, handleSubmit, formState, reset } = useForm({ resolver: zodResolver(newMemberSchema), defaultValues: { role: 'analyst' } });
  const add = (body: NewMember): Promise<void> =>
    call('addMember', { params: { project }, body }).then((member) => {
      toast.success(`${member.name} is a ${member.role} of the project now.`);
      reset();
      return client.invalidateQueries({ queryKey: [project, 'members'] });
    }, tellFailure);
  return (
    <form className="p-7" onSubmit={handleSubmit(add)} noValidate>
      <h2 className="font-serif text-xl font-semibold">Add someone</h2>
      <Field label="Name" error={formState.errors.name && 'is needed'} {...register('name')} />
      <Field label="E-mail address" type="email" error={formState.errors.email && 'must be an e-mail address'} {...register('email')} />
      <Field label="First password" type="password" autoComplete="new-password" hint={`At least ${SHORTEST_PASSWORD} characters.`} error={formState.errors.password && `must have at least ${SHORTEST_PASSWORD} characters`} {...register('password')} />
      <label className="mt-3 block text-sm font-semibold">
        Role
        <select className="field-boxed mt-1 block w-full font-normal" {...register('role')}>
          {ROLES.map((role) => (
            <option key={role}>{role}</option>
          ))}
        </select>
      </label>
      <Button type="submit" look="accent" className="mt-5" disabled={formState.isSubmitting}>
        Add
      </Button>
    </form>
  );
}

function OnlyAdministrators() {
  return <p className="p-7 text-ink2">Administrators of the project add people here.</p>;
}
