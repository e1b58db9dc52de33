/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { parameterId, plainStep, stepId } from '@caderno/core/cases';
import { EMPTY_DATA_SET } from '@caderno/core/dataSets';
import { EMPTY_SHARED, type SharedContent } from '@caderno/core/shared';
import type { DataSetSummary, SharedSummary } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { SharedChapter } from './SharedChapter.tsx';

afterEach(cleanup);

const of = { state: 'draft', version: 2, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {} } as const;
const signIn: SharedSummary = { kind: 'shared', id: 'S-1', title: 'Sign in', ...of, tags: [], steps: 1, parameters: ['user'], phrases: [] };
const tariffs: DataSetSummary = { kind: 'dataSet', id: 'D-1', title: 'Tariffs', ...of, tags: [], rows: 3, parameters: ['tariff'], serves: [] };
const CONTENT: SharedContent = { ...EMPTY_SHARED, title: 'Sign in', parameters: [{ id: parameterId('u'), name: 'user', type: 'text', default: '', description: '' }], steps: [plainStep(stepId('s'), 'sign in as <user> at <place>')] };

function chapter(path: string, context = {}) {
  const server = standInProject([signIn, tariffs], [], {
    readArtefact: ({ params: { id } }) => (id === 'S-1' ? { kind: 'shared', summary: signIn, content: CONTENT, draft: null } : { kind: 'dataSet', summary: tariffs, content: { ...EMPTY_DATA_SET, title: 'Tariffs' }, draft: null }),
    readReuse: () => ({ users: [{ id: 'C-4', title: 'Pay', distance: 1, follows: true, pinned: null, state: 'draft', agreedVersion: null, instances: 3 }], uses: [] }),
    readLibrary: () => [],
    readDesign: () => ({ requirements: [], conditions: [], cases: [], questions: [], library: [], riskWeights: { high: 3, medium: 2, low: 1 }, mostItems: 1_000, constants: [] }),
    keepDraft: () => ({ at: '2026-01-01T00:00:00.000Z' }),
    saveArtefact: ({ body }) => ({ kind: 'shared', summary: { ...signIn, version: 3 }, content: body.content, draft: null }) as never,
  });
  onThePage(<SharedChapter />, context, path, '/p/shared/:shared?');
  return server;
}

test('before shared steps are saved one sees whom it reaches; the save names the version it grew from', async () => {
  const server = chapter('/p/shared/S-1');
  const title = await screen.findByDisplayValue('Sign in');
  expect(screen.queryByText(/Saving reaches/)).toBeNull();
  fireEvent.change(title, { target: { value: 'Sign in by card' } });
  await screen.findByText('Saving reaches 1 case with 3 instances.', { exact: false });
  fireEvent.click(screen.getByRole('button', { name: /^Save/ }));
  await waitFor(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  const [saved] = server.calls('saveArtefact');
  expect([saved!.headers.get('if-match'), saved!.body]).toMatchObject(['"2"', { kind: 'shared', content: { title: 'Sign in by card', steps: [{ id: 's' }] } }]);
});

test('a name that stands in a step and is no parameter yet is declared by a click; a default that is none of its type says so', async () => {
  chapter('/p/shared/S-1');
  await screen.findByText('<place> is used and not declared.', { exact: false });
  fireEvent.click(screen.getByRole('button', { name: 'Declare it' }));
  const given = await screen.findByLabelText('Default of place');
  expect(screen.queryByText(/not declared/)).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /Type of place/ }));
  fireEvent.click(await screen.findByRole('option', { name: /whole number/i }));
  fireEvent.change(given, { target: { value: 'twelve' } });
  await waitFor(() => expect(screen.getByLabelText('Default of place').getAttribute('aria-invalid')).toBe('true'));
  fireEvent.click(screen.getByRole('button', { name: 'Remove the parameter place' }));
  await screen.findByText(/not declared/);
});

test('data sets stand beside shared steps; who may only read makes none of either', async () => {
  chapter('/p/shared/D-1', { canEdit: false });
  expect(await screen.findByDisplayValue('Tariffs')).toHaveProperty('readOnly', true);
  expect(screen.queryByRole('button', { name: /^New/ })).toBeNull();
});

test('shared steps are one index with cases: found by a query, grouped, and arrows open the next in the order seen', async () => {
  const more = [2, 3].map((n): SharedSummary => ({ ...signIn, id: `S-${n}`, title: `Steps ${n}`, tags: n === 3 ? ['smoke'] : [] }));
  standInProject([signIn, ...more, tariffs], [], { readArtefact: () => ({ kind: 'shared', summary: signIn, content: CONTENT, draft: null }), readReuse: () => ({ users: [], uses: [] }), readLibrary: () => [] });
  onThePage(<SharedChapter />, {}, '/p/shared?group=tags&sort=-title', '/p/shared/:shared?');
  const list = within(await screen.findByRole('list', { name: 'Shared steps' }));
  await waitFor(() => expect(list.getAllByRole('listitem').map((li) => /^S-\d|^\w+/.exec(li.textContent ?? '')?.[0])).toEqual(['smoke1', 'S-3', 'No', 'S-2', 'S-1']));
  fireEvent.change(screen.getByRole('combobox', { name: 'Filter the shared steps by a query' }), { target: { value: '-has:tags' } });
  await waitFor(() => expect(list.queryByText('Steps 3')).toBeNull());
  list.getByRole('link', { name: /S-2/ }).focus();
  fireEvent.keyDown(document.activeElement!, { key: 'ArrowDown' });
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/shared/S-1?group=tags&sort=-title&query=-has%3Atags'));
});
