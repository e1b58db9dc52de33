/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Member } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
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
