/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { ChangedMany } from '@caderno/contract';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { CasesChapter } from './CasesChapter.tsx';

afterEach(cleanup);

const heads = [
  caseHead(1, { title: 'Read the dial', module: 'Meters', steps: 3, rows: 4, estimate: 2, tags: ['smoke'], covers: ['K-1'] }),
  caseHead(2, { title: 'Pay in coins', module: 'Counter', dataSet: 'D-1', state: 'agreed' }),
  caseHead(3, { title: 'Explore the counter', module: 'Counter', caseKind: 'charter', execution: 'automated' }),
  caseHead(4, { title: 'Torn', module: 'Meters', broken: true }),
  caseHead(5, { title: 'Gone', module: 'Meters', state: 'withdrawn' }),
];
const rows = [{ kind: 'case' as const, id: 'C-1' as const, shows: true, counts: { instances: 12, steps: 9 } }];

function index(answers: Parameters<typeof standInProject>[2] = {}, path = '/p/cases') {
  const server = standInProject(heads, rows, { findByWords: () => ({ ids: ['C-2'] }), readReuse: () => ({ users: [], uses: [] }), ...answers });
  onThePage(<CasesChapter />, {}, path, '/p/cases/:case?');
  return server;
}
const lines = (): string[] => within(screen.getByRole('list', { name: 'Cases' })).queryAllByRole('listitem').map((li) => li.textContent ?? '');
const ids = (): string[] => lines().flatMap((line) => /^C-\d+/.exec(line) ?? []);
const filter = (text: string): void => void fireEvent.change(screen.getByRole('combobox', { name: 'Filter the cases by a query' }), { target: { value: text } });

test('cases stand in their modules with what they come to when opened; what is withdrawn is not there', async () => {
  index();
  await waitFor(() => expect(ids()).toEqual(['C-2', 'C-3', 'C-1', 'C-4']));
  await waitFor(() => expect(lines()[0]).toBe('Counter2 cases · 2 instances'));
  expect(lines()[3]).toBe('Meters2 cases · 13 instances');
  expect(lines()[4]).toContain('3 steps, 9 opened · 4 rows · 12 instances · 24 min · smoke');
  expect(lines()[1]).toContain('rows of D-1 · agreed');
  expect(lines()[2]).toContain('charter · automated');
});

test('a query filters by fields at once and by words through the server, and names what the project has not', async () => {
  const server = index();
  await waitFor(() => expect(ids()).toHaveLength(4));
  filter('module:counter execution:automated');
  await waitFor(() => expect(ids()).toEqual(['C-3']));
  expect(server.calls('findByWords')).toEqual([]);
  filter('coins');
  await waitFor(() => expect(ids()).toEqual(['C-2']));
  expect(server.calls('findByWords')).toHaveLength(1);
  filter('module:elsewhere covers:k-99');
  await screen.findByText('There is no condition K-99. No module is called “elsewhere”.');
  expect(screen.getByText('No case matches the query.')).toBeTruthy();
});

test('what is done with those selected is seen before it is confirmed; refused, it is taken back', async () => {
  let answer: ((changed: ChangedMany | Error) => void) | null = null;
  const server = index({
    changeMany: () =>
      new Promise((resolve, reject) => {
        answer = (changed) => (changed instanceof Error ? reject(changed) : resolve(changed));
      }),
  });
  await waitFor(() => expect(ids()).toHaveLength(4));
  const withdraw = (): void => {
    fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-2' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-3' }), { shiftKey: true });
    fireEvent.click(within(screen.getByRole('toolbar', { name: 'Selected cases' })).getByRole('button', { name: 'Withdraw' }));
  };
  withdraw();
  await waitFor(() => expect(ids()).toEqual(['C-1', 'C-4']));
  await waitFor(() => expect(answer).not.toBeNull());
  answer!(new Refusing({ code: 'role_too_low', needed: 'analyst', have: 'reader' }));
  await waitFor(() => expect(ids()).toEqual(['C-2', 'C-3', 'C-1', 'C-4']));
  expect(server.calls('changeMany')).toMatchObject([{ body: { of: { ids: ['C-2', 'C-3'] }, done: { kind: 'state', state: 'withdrawn' } } }]);
});

test('a new case is made in the module of the one that is open, and opened', async () => {
  const server = index({ createArtefact: ({ body }) => ({ kind: 'case', summary: caseHead(9), content: body.content, draft: null }) as never });
  await waitFor(() => expect(ids()).toHaveLength(4));
  fireEvent.click(screen.getByRole('button', { name: 'New' }));
  await waitFor(() => expect(server.calls('createArtefact')).toMatchObject([{ body: { kind: 'case', content: { title: 'New case', module: '' } } }]));
});

test('shared steps beside a case have a query of their own, and arrows through them leave the case open', async () => {
  const shared = { kind: 'shared' as const, state: 'draft' as const, version: 1, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, tags: [], steps: 1, parameters: [], phrases: [] };
  standInProject([...heads, { ...shared, id: 'S-1', title: 'Sign in' }, { ...shared, id: 'S-2', title: 'Sign out' }], rows, { readReuse: () => ({ users: [], uses: [] }) });
  onThePage(<CasesChapter />, {}, '/p/cases?left=shared&query=module:counter', '/p/cases/:case?');
  const list = within(await screen.findByRole('list', { name: 'Shared steps' }));
  await waitFor(() => expect(list.getAllByRole('link')).toHaveLength(2));
  list.getByRole('link', { name: /S-1/ }).focus();
  fireEvent.keyDown(document.activeElement!, { key: 'ArrowDown' });
  await waitFor(() => expect(document.activeElement?.textContent).toContain('S-2'));
  expect(screen.getByRole('list', { name: 'Shared steps' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Cases' }));
  await waitFor(() => expect(ids()).toEqual(['C-2', 'C-3']));
});
