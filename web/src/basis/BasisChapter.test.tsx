/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { BasisChapter } from './BasisChapter.tsx';

afterEach(cleanup);

const heads = [requirementHead(1, { title: 'Readings' }), requirementHead(2, { title: 'By card', parent: 'R-1', sourceId: 'WEB-7' }), requirementHead(3, { title: 'Tariffs' })];
const titles = (): string[] => within(screen.getByRole('list', { name: 'Outline of requirements' })).queryAllByRole('listitem').map((t) => /Readings|By card|Tariffs/.exec(t.textContent ?? '')?.[0] ?? '');
const changed = { change: null, changed: 2, made: [], left: [] };

const query = (text: string): void => void fireEvent.change(screen.getByRole('combobox', { name: 'Filter the requirements by a query' }), { target: { value: text } });

test('the outline is filtered by fields and, through the server, by words; what stands above stays in sight and is not selected', async () => {
  standInProject(heads, [], { findByWords: ({ query: { words } }) => ({ ids: words === 'web-7' ? ['R-2'] : [] }) });
  onThePage(<BasisChapter />);
  await waitFor(() => expect(titles()).toEqual(['Readings', 'By card', 'Tariffs']));
  query('web-7');
  await waitFor(() => expect(titles()).toEqual(['Readings', 'By card']));
  expect(screen.queryByRole('checkbox', { name: 'Select R-1' })).toBeNull();
  expect(screen.getByRole('checkbox', { name: 'Select R-2' })).toBeTruthy();
  query('risk:high');
  await screen.findByText('No requirement matches the query.');
  expect(screen.queryByRole('list', { name: 'Outline of requirements' })).toBeNull();
});

test('grouped or sorted they stand in a list; by nothing again they are the outline, which nothing is remembered of', async () => {
  const server = standInProject([requirementHead(1, { title: 'Readings', risk: 'low' }), requirementHead(2, { title: 'By card', parent: 'R-1', risk: 'high' })], []);
  onThePage(<BasisChapter />, {}, '/p/basis?group=risk');
  const list = within(await screen.findByRole('list', { name: 'Requirements' }));
  await waitFor(() => expect(list.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['High risk1 requirement', expect.stringContaining('By card'), 'Low risk1 requirement', expect.stringContaining('Readings')]));
  fireEvent.click(screen.getByRole('button', { name: /Group by/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'nothing' }));
  await waitFor(() => expect(titles()).toEqual(['Readings', 'By card']));
  expect(server.calls('saveListView')).toEqual([]);
});

test('what is withdrawn is seen in the outline, and brought back from there', async () => {
  const server = standInProject([...heads, requirementHead(4, { title: 'Readings by post', state: 'withdrawn' })], [], { changeMany: () => ({ ...changed, changed: 1 }) });
  onThePage(<BasisChapter />);
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Select R-4' }));
  fireEvent.click(screen.getByRole('button', { name: 'Bring back' }));
  await waitFor(() => expect(server.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['R-4'] }, done: { kind: 'state', state: 'draft' } }));
});

test('several are rated at once on the scale of the project', async () => {
  const server = standInProject(heads, [], { changeMany: () => changed });
  onThePage(<BasisChapter />);
  await waitFor(() => expect(titles()).toHaveLength(3));
  for (const id of ['R-2', 'R-3']) fireEvent.click(screen.getByRole('checkbox', { name: `Select ${id}` }));
  fireEvent.click(await screen.findByRole('button', { name: 'Set impact' }));
  fireEvent.click((await screen.findAllByRole('menuitem')).at(-1)!);
  await waitFor(() => expect(server.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['R-2', 'R-3'] }, done: { kind: 'edit', edit: { kind: 'rating', part: 'impact' } } }));
});

test('selected requirements get a risk and a module by one command each, which names them', async () => {
  const server = standInProject(heads, [], { changeMany: () => changed });
  onThePage(<BasisChapter />);
  await waitFor(() => expect(titles()).toHaveLength(3));
  for (const id of ['R-1', 'R-3']) fireEvent.click(screen.getByRole('checkbox', { name: `Select ${id}` }));
  const bar = within(screen.getByRole('toolbar', { name: 'Selected requirements' }));
  expect(bar.getByText('2 selected')).toBeTruthy();
  fireEvent.click(bar.getByRole('button', { name: 'Move to module' }));
  fireEvent.change(await screen.findByLabelText('Module'), { target: { value: 'Meters' } });
  fireEvent.click(screen.getByRole('button', { name: 'Move' }));
  await waitFor(() => expect(server.calls('changeMany')).toHaveLength(1));
  expect(server.calls('changeMany')[0]?.body).toEqual({ of: { ids: ['R-1', 'R-3'] }, done: { kind: 'edit', edit: { kind: 'module', module: 'Meters' } }, detail: '2 requirements moved to Meters' });
  await waitFor(() => expect(screen.queryByRole('toolbar', { name: 'Selected requirements' })).toBeNull());
});

test('an empty basis offers the first requirement to those who may write it', async () => {
  standInProject([], []);
  const { unmount } = onThePage(<BasisChapter />);
  expect(await screen.findByRole('button', { name: 'Write the first requirement' })).toBeTruthy();
  unmount();
  onThePage(<BasisChapter />, { canEdit: false });
  await screen.findByText('The basis is empty');
  expect(screen.queryByRole('button', { name: 'Write the first requirement' })).toBeNull();
});
