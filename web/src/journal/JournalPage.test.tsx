/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Change } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { Refusing } from '../../test/standInServer.ts';
import { standInProject } from '../../test/standInProject.ts';
import { JournalPage } from './JournalPage.tsx';

afterEach(cleanup);

const change = (revision: number, more: Partial<Change> = {}): Change => ({
  id: `00000000-0000-4000-8000-${String(revision).padStart(12, '0')}`, revision, action: 'save', artefact: 'C-1', title: 'Read the dial', size: 1, fromVersion: revision, toVersion: revision + 1,
  detail: '', author: 'Rui M.', at: `2026-01-${String(1 + (revision % 20)).padStart(2, '0')}T10:00:00.000Z`, note: '', undone: false, undid: null, ...more,
});

test('a hundred entries at a time, by day; what was undone says so and is offered no more', async () => {
  const all = Array.from({ length: 130 }, (_, i) => change(130 - i, i === 0 ? { undone: true } : i === 1 ? { size: 40, artefact: 'C-1', action: 'write', detail: '40 cases moved' } : {}));
  const server = standInProject([], [], { listChanges: ({ query }) => all.filter((c) => query.before === undefined || c.revision < query.before).slice(0, 100) });
  onThePage(<JournalPage />);
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(100));
  const undone = screen.getAllByRole('listitem').find((li) => li.textContent?.includes('· undone'))!;
  expect(within(undone).queryByRole('button')).toBeNull();
  expect(screen.getByText('40 cases moved: 40 artefacts')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Earlier entries' }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(130));
  expect(screen.queryByRole('button', { name: 'Earlier entries' })).toBeNull();
  expect(server.calls('listChanges')).toHaveLength(2);
});

test('an undo that is refused changes nothing on the page, and goes out as one command', async () => {
  const server = standInProject([], [], {
    listChanges: () => [change(5)],
    undoChange: () => {
      throw new Refusing({ code: 'still_used', id: 'C-1', users: ['C-2'] });
    },
  });
  onThePage(<JournalPage />);
  fireEvent.click(await screen.findByRole('button', { name: /^Undo:/ }));
  await waitFor(() => expect(server.calls('undoChange')).toHaveLength(1));
  expect(server.calls('undoChange')[0]!.headers.get('command-id')).toMatch(/^[0-9a-f-]{36}$/);
  expect(screen.getByRole('button', { name: /^Undo:/ })).toBeTruthy();
});

test('one looks back at the project as it was right after an entry, at what it changed', async () => {
  standInProject([], [], { listChanges: () => [change(7), change(6, { size: 40, action: 'write', detail: '40 cases moved' }), change(5, { artefact: null })] });
  onThePage(<JournalPage />);
  const links = await screen.findAllByRole('link', { name: /^Look back: right after/ });
  expect(links.map((a) => a.getAttribute('href'))).toEqual(['/p@7/cases/C-1', '/p@6/coverage', '/p@5/coverage']);
});
