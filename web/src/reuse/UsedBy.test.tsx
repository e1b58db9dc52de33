/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ConnectedArtefact } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { PinnedUsers } from './PinnedUsers.tsx';
import { Reach, UsedBy } from './UsedBy.tsx';

afterEach(cleanup);

const user = (n: number, more: Partial<ConnectedArtefact> = {}): ConnectedArtefact => ({ id: `C-${n}`, title: `Case ${n}`, distance: 1, follows: true, pinned: null, state: 'draft', agreedVersion: null, instances: 2, ...more });

function used(users: readonly ConnectedArtefact[], rows: Parameters<typeof standInProject>[1] = []) {
  return standInProject([], rows, { readReuse: () => ({ users: [...users], uses: [] }), changeMany: ({ body }) => ({ change: null, changed: 'ids' in body.of ? body.of.ids.length : 0, made: [], left: [] }) });
}

test('who uses it is listed with how, the first eight and then all', async () => {
  used([user(1, { pinned: 2 }), user(2, { distance: 3 }), user(3, { follows: false }), user(4, { state: 'withdrawn' }), user(5, { follows: false, pinned: 'agreed' }), ...Array.from({ length: 5 }, (_, i) => user(i + 6))]);
  onThePage(<UsedBy id="S-1" side="users" />);
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(8));
  expect(screen.getAllByRole('listitem').slice(0, 5).map((li) => li.textContent)).toEqual(['C-1Case 1 pinned to v2', 'C-2Case 2 through others', 'C-3Case 3 behind a pinned or agreed version', 'C-4Case 4 withdrawn', 'C-5Case 5 follows what is agreed']);
  fireEvent.click(screen.getByRole('button', { name: 'and 2 more' }));
  expect(screen.getAllByRole('listitem')).toHaveLength(10);
});

test('before one saves it says what follows: cases, their instances when opened, what is agreed, what stays behind', async () => {
  used([user(1), user(2, { state: 'agreed' }), user(3, { pinned: 1, follows: false }), user(4, { state: 'withdrawn' }), user(5, { instances: null }), user(6, { pinned: 'agreed', follows: false })], [{ kind: 'case', id: 'C-1', shows: true, counts: { instances: 40, steps: 9 } }]);
  onThePage(<Reach id="S-1" />);
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Saving reaches 2 cases with 42 instances and 1 other shared steps; 1 of them agreed. 2 users are not reached: pinned, or following what is agreed.'));
});

test('users that are pinned behind move on together, those that are ticked, by one command', async () => {
  const server = used([user(1, { pinned: 2 }), user(2, { pinned: 1 }), user(3, { pinned: 4 }), user(4, { pinned: 1, state: 'withdrawn' }), user(5, { pinned: 'agreed' })]);
  onThePage(<PinnedUsers id="S-1" version={4} />);
  fireEvent.click(await screen.findByRole('button', { name: 'move to v4' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Move users to v4 of S-1' }));
  expect(dialog.getAllByRole('checkbox')).toHaveLength(2);
  fireEvent.click(dialog.getAllByRole('checkbox')[1]!);
  fireEvent.click(dialog.getByRole('button', { name: 'Move 1 user' }));
  await waitFor(() => expect(server.calls('changeMany')).toHaveLength(1));
  expect(server.calls('changeMany')[0]!.body).toEqual({ of: { ids: ['C-1'] }, done: { kind: 'edit', edit: { kind: 'pins', of: 'S-1', version: 4 } }, detail: 'Moved to v4 of S-1' });
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});
