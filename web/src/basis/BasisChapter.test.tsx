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

test('the outline is filtered by words and by the id of the source, and what stands above stays in sight', async () => {
  standInProject(heads, []);
  onThePage(<BasisChapter />);
  await waitFor(() => expect(titles()).toEqual(['Readings', 'By card', 'Tariffs']));
  const filter = screen.getByRole('textbox', { name: /Filter the outline/ });
  fireEvent.change(filter, { target: { value: 'web-7' } });
  expect(titles()).toEqual(['Readings', 'By card']);
  fireEvent.change(filter, { target: { value: 'nothing of ours' } });
  expect(titles()).toEqual([]);
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
