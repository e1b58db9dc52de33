/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Member } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { PeoplePage } from './PeoplePage.tsx';

afterEach(cleanup);

const member = (n: number, name: string, role: Member['role']): Member => ({ id: `00000000-0000-4000-8000-00000000000${n}`, name, email: `${n}@example.com`, role, sees: null });

test('roles are changed and people removed only after they were asked for by name; who may not sees roles as words', async () => {
  let members = [member(1, 'Inês V.', 'administrator'), member(2, 'Rui M.', 'analyst')];
  const server = standInProject([], [], {
    listMembers: () => members,
    listMemberEvents: () => [],
    changeRole: ({ params, body }) => {
      members = members.map((m) => (m.id === params.person ? { ...m, role: body.role } : m));
      return members.find((m) => m.id === params.person)!;
    },
    removeMember: ({ params }) => (members = members.filter((m) => m.id !== params.person)),
  });
  const { unmount } = onThePage(<PeoplePage />);
  fireEvent.change(await screen.findByRole('combobox', { name: 'Role of Rui M.' }), { target: { value: 'lead' } });
  await waitFor(() => expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'Role of Rui M.' }).value).toBe('lead'));
  fireEvent.click(screen.getByRole('button', { name: 'Remove Rui M. from the project …' }));
  fireEvent.click(screen.getByRole('button', { name: 'keep' }));
  expect(server.calls('removeMember')).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Remove Rui M. from the project …' }));
  fireEvent.click(screen.getByRole('button', { name: 'remove Rui M.' }));
  await waitFor(() => expect(screen.queryByText('Rui M.')).toBeNull());
  unmount();
  onThePage(<PeoplePage />, { canManage: false, canLead: false });
  expect((await screen.findByRole('row', { name: /Inês V\./ })).textContent).toContain('administrator');
  expect(screen.queryByRole('combobox')).toBeNull();
});

test('what a reader sees is chosen among the modules there are; a module that is gone is still told', async () => {
  let members = [member(1, 'Inês V.', 'administrator'), { ...member(2, 'Olga S.', 'reader'), sees: ['Once'] }, member(3, 'Rui M.', 'analyst')];
  const server = standInProject([requirementHead(1, { module: 'Bills' }), requirementHead(2, { module: 'Meters' })], [], {
    listMembers: () => members,
    listMemberEvents: () => [],
    changeSeenModules: ({ params, body }) => {
      members = members.map((m) => (m.id === params.person ? { ...m, sees: body.sees } : m));
      return members.find((m) => m.id === params.person)!;
    },
  });
  onThePage(<PeoplePage />);
  const sees = () => screen.findByRole('button', { name: /^What Olga S\. sees/ });
  expect((await sees()).textContent).toBe('only Once …');
  expect(screen.queryByRole('button', { name: /^What Rui M\. sees/ })).toBeNull();
  fireEvent.click(await sees());
  expect((await screen.findAllByRole('checkbox')).map((box) => box.closest('label')?.textContent)).toEqual(['Bills', 'Meters', 'Oncenothing is in it now']);
  fireEvent.click(screen.getByRole('checkbox', { name: /^Once/ }));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Set' }).disabled).toBe(true);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Meters' }));
  fireEvent.click(screen.getByRole('checkbox', { name: 'Bills' }));
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  await waitFor(async () => expect((await sees()).textContent).toBe('only Meters, Bills …'));
  fireEvent.click(await sees());
  fireEvent.click(await screen.findByRole('radio', { name: 'everything in the project' }));
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  await waitFor(async () => expect((await sees()).textContent).toBe('everything …'));
  expect(server.calls('changeSeenModules').map((c) => c.body)).toEqual([{ sees: ['Meters', 'Bills'] }, { sees: null }]);
});
