import { ROLES, type Member, type Role } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useEveryMember } from '../api/index.ts';
import { Spread, useFrame } from '../frame/index.ts';
import { TextButton, Select } from '../look/index.ts';
import { AddMember } from './AddMember.tsx';
import { ReadLinks } from './ReadLinks.tsx';
import { PersonJournal } from './PersonJournal.tsx';
import { SeenModulesDialog } from './SeenModulesDialog.tsx';

/** The people of a project with their roles; its administrators change them and add others. */
export function PeoplePage() {
  const { project, canManage } = useFrame();
  return (
    <Spread chapter="people" leftShare={60} leftLabel="People" rightLabel="Add someone" left={<MemberList project={project} />} right={canManage ? <AddMember project={project} /> : <p className="p-7 text-ink2">Administrators of the project add people here.</p>} />
  );
}

function MemberList({ project }: { readonly project: string }) {
  const { canManage, canLead, canEdit, isPast } = useFrame();
  const members = useEveryMember(project).data ?? [];
  return (
    <div className="p-7">
      <h1 className="font-serif text-2xl font-semibold">People</h1>
      <table className="mt-4 w-full text-left text-sm">
        <thead className="border-b border-ink text-xs text-ink2">
          <tr>
            <th className="py-1.5 font-semibold">Name</th>
            <th className="font-semibold">E-mail address</th>
            <th className="font-semibold">Role</th>
            <th className="font-semibold">Sees</th>
            {canManage && <th className="sr-only">Remove</th>}
          </tr>
        </thead>
        <tbody className="divide-y divide-rule">
          {members.map((member) => (
            <MemberLine key={member.id} project={project} member={member} />
          ))}
        </tbody>
      </table>
      {canEdit && !isPast && <ReadLinks />}
      {canLead && <PersonJournal title="Journal of people" queryKey={[project, 'members', 'journal']} read={(before) => call('listMemberEvents', { params: { project }, query: before === undefined ? {} : { before } })} />}
    </div>
  );
}

function MemberLine({ project, member }: { readonly project: string; readonly member: Member }) {
  const { canManage } = useFrame();
  const [asking, setAsking] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const client = useQueryClient();
  const done = (words: string) => (): Promise<void> => {
    toast.success(words);
    return client.invalidateQueries({ queryKey: [project, 'members'] });
  };
  const params = { project, person: member.id };
  const changeRole = (role: Role): void => void call('changeRole', { params, body: { role } }).then(done(`${member.name} has the role of ${role} now.`), tellFailure);
  const changeSees = (sees: readonly string[] | null): void => void call('changeSeenModules', { params, body: { sees: sees === null ? null : [...sees] } }).then(done(`${member.name} sees ${seesWords(sees)} now.`), tellFailure);
  const remove = (): void => void call('removeMember', { params }).then(done(`${member.name} is no longer in the project. Whatever they wrote stays.`), tellFailure);
  return (
    <tr>
      <td className="py-2 font-semibold">{member.name}</td>
      <td className="break-all pr-2">{member.email}</td>
      <td>
        {canManage ? (
          <Select aria-label={`Role of ${member.name}`} value={member.role} options={ROLES.map((role) => ({ value: role, name: role }))} onChange={changeRole} />
        ) : (
          member.role
        )}
      </td>
      <td className="pr-2">
        {canManage && member.role === 'reader' ? (
          <TextButton aria-label={`What ${member.name} sees: ${seesWords(member.sees)}`} onClick={() => setChoosing(true)}>
            {seesWords(member.sees)} …
          </TextButton>
        ) : (
          seesWords(member.sees)
        )}
        {choosing && <SeenModulesDialog project={project} member={member} onSet={changeSees} onClose={() => setChoosing(false)} />}
      </td>
      {canManage && (
        <td className="text-right">
          {asking ? (
            <span className="flex justify-end gap-3">
              <TextButton className="text-brick" onClick={remove}>
                remove {member.name}
              </TextButton>
              <TextButton onClick={() => setAsking(false)}>keep</TextButton>
            </span>
          ) : (
            <TextButton aria-label={`Remove ${member.name} from the project …`} onClick={() => setAsking(true)}>
              remove …
            </TextButton>
          )}
        </td>
      )}
    </tr>
  );
}

/** What somebody sees of a project, in words. */
function seesWords(sees: readonly string[] | null): string {
  return sees === null ? 'everything' : `only ${sees.join(', ')}`;
}
