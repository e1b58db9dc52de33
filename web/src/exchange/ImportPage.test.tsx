/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { GUESS_ALL } from '@caderno/core/exchange';
import { DEFAULT_SETTINGS, type Change, type ImportDraft, type ImportPreview, type ProjectSettings } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { onThePage } from '../../test/onThePage.tsx';
import { ownField } from '../../test/ownField.ts';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { ImportPage } from './ImportPage.tsx';

afterEach(cleanup);

const DRAFT: ImportDraft = {
  id: '00000000-0000-4000-8000-00000000000a', name: 'counter.csv', format: 'csv', records: 3, sheets: [], sections: 0, sources: ['counter'], remembered: false, reading: GUESS_ALL,
  columns: [{ name: 'Id', examples: ['A-1'] }, { name: 'What', examples: ['Pay in coins'] }], names: { header: 1, rows: ['Id, What', 'A-1, Pay in coins'] },
  mapping: { source: 'counter', columns: { Id: 'id', What: 'title' } },
};
const PREVIEW: ImportPreview = {
  here: { ids: [], titles: 0, examples: [] }, counts: { added: 1, changed: 1, same: 1, gone: 0, conflicts: 1, errors: 1, warnings: 0 }, gone: [],
  added: [{ line: 3, key: 'A-3', title: 'Pay by card', text: '', parent: null }],
  changed: [{ id: 'R-1', title: 'Pay in coins', line: 2, fields: [], moves: false, relations: false, conflicts: [{ field: 'text', base: 'Coins.', mine: 'Coins only.', theirs: 'Coins and notes.' }] }],
  problems: [{ code: 'title_missing', severity: 'error', line: 4, column: null } as never],
};
const CHANGE: Change = { id: '00000000-0000-4000-8000-00000000000b', revision: 2, action: 'import', artefact: 'R-1', title: 'Pay in coins', size: 2, toVersion: 2, fromVersion: 1, detail: 'counter', note: '1 added, 1 changed', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', undone: false, undid: null };

function imported(answers: Parameters<typeof standInProject>[2] = {}) {
  const server = standInProject([requirementHead(1)], [], {
    uploadImport: () => DRAFT,
    previewImport: () => PREVIEW,
    readImportProgress: () => ({ state: 'running', done: 1, total: 2 }),
    runImport: () => CHANGE,
    ...answers,
  });
  onThePage(<ImportPage />);
  return server;
}
const bring = (): Promise<void> => userEvent.upload(screen.getByLabelText('File to import'), new File(['Id,What\nA-1,Pay'], 'counter.csv'));

test('a file is brought, shown before anything is changed, and imported once every conflict is decided', async () => {
  const server = imported();
  await bring();
  await screen.findByText('1 added · 1 changed · 1 as they are', { exact: false });
  expect(screen.getByText('counter.csv · 3 requirements in it')).toBeTruthy();
  expect(within(screen.getByRole('list', { name: 'Problems in the file' })).getByText('line 4')).toBeTruthy();
  const button = (): HTMLElement => screen.getByRole('button', { name: 'Import' });
  expect([button(), screen.getByText('1 to choose')]).toMatchObject([{ disabled: true }, {}]);
  fireEvent.click(screen.getByRole('button', { name: 'take all of the file’s' }));
  fireEvent.click(button());
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/basis/R-1'));
  const [sent] = server.calls('runImport');
  expect([sent!.body, sent!.headers.get('command-id')]).toEqual([{ mapping: DRAFT.mapping, reading: GUESS_ALL, choices: { 'R-1 text': 'theirs' } }, expect.stringMatching(/^[0-9a-f-]{36}$/)]);
});

test('a column may fill a field of the project’s own, and what it changes is called by its name', async () => {
  const server = imported({
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, fields: [ownField('Owner of it', 'text', [], { of: ['requirement'] }), ownField('Of cases', 'text', [], { of: ['case'] })] } }) as never,
    previewImport: () => ({ ...PREVIEW, changed: [{ ...PREVIEW.changed[0]!, conflicts: [], fields: [{ field: 'own:owner-of-it', from: 'Rui', to: 'Inês' }] }] }),
  });
  await bring();
  fireEvent.click(await screen.findByRole('button', { name: /What.*: Title/ }));
  expect(screen.queryByRole('option', { name: 'Of cases' })).toBeNull();
  fireEvent.click(await screen.findByRole('option', { name: 'Owner of it' }));
  await waitFor(() => expect(server.calls('previewImport').at(-1)?.body).toMatchObject({ mapping: { columns: { Id: 'id', What: 'own:owner-of-it' } } }));
  expect(within(screen.getByRole('region', { name: 'Changed requirements' })).getByText('Owner of it')).toBeTruthy();
});

test('a column becomes a new field of requirements; what is typed while it is made is kept', async () => {
  let made: () => void = () => undefined;
  const server = imported({
    saveSettings: async ({ body }) => {
      await new Promise<void>((resolve) => (made = resolve));
      return { version: 2, settings: body };
    },
  });
  await bring();
  fireEvent.click(await screen.findByRole('button', { name: 'Id is: Id in the source' }));
  fireEvent.click(await screen.findByRole('option', { name: 'A new field of the project' }));
  await waitFor(() => expect(server.calls('saveSettings').map(({ body }) => (body as ProjectSettings).fields)).toMatchObject([[{ name: 'Id', of: ['requirement'], type: 'text' }]]));
  // Where the focus is stays open to it, and takes nothing twice.
  const column = screen.getByRole<HTMLButtonElement>('button', { name: 'Id is: Id in the source' });
  expect(column.disabled).toBe(false);
  fireEvent.click(column);
  fireEvent.click(await screen.findByRole('option', { name: 'A new field of the project' }));
  expect(server.calls('saveSettings')).toHaveLength(1);
  fireEvent.change(screen.getByDisplayValue('counter'), { target: { value: 'counter of 2026' } });
  made();
  await waitFor(() => expect(server.calls('previewImport').at(-1)?.body).toMatchObject({ mapping: { source: 'counter of 2026', columns: { Id: expect.stringMatching(/^own:/), What: 'title' } } }));
});

test('what is refused is said, and the file stays to be run again', async () => {
  let times = 0;
  const server = imported({
    previewImport: () => ({ ...PREVIEW, changed: [], counts: { ...PREVIEW.counts, changed: 0, conflicts: 0 } }),
    runImport: () => {
      times += 1;
      if (times === 1) throw new Refusing({ code: 'import_lost' });
      return CHANGE;
    },
  });
  await bring();
  fireEvent.click(await screen.findByRole('button', { name: 'Import' }));
  await waitFor(() => expect(server.calls('runImport')).toHaveLength(1));
  fireEvent.click(await screen.findByRole('button', { name: 'Import' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/basis/R-1'));
  const ids = server.calls('runImport').map((c) => c.headers.get('command-id'));
  expect(new Set(ids).size).toBe(2);
});

test('what seems to be here already is named, and the file is taken for the source it came from', async () => {
  const here = { ids: [{ source: 'counter of last year', count: 2 }], titles: 1, examples: [{ key: 'A-1', title: 'Pay in coins', id: 'R-1' as const }] };
  const server = imported({ previewImport: () => ({ ...PREVIEW, here }) });
  await bring();
  expect((await screen.findByText(/2 ids are here already/)).textContent).toContain('counter of last year');
  fireEvent.click(screen.getByRole('button', { name: 'Update “counter of last year” instead' }));
  await waitFor(() => expect(server.calls('previewImport').at(-1)?.body).toMatchObject({ mapping: { source: 'counter of last year' } }));
});

test('readers are told whom to ask', () => {
  standInProject([], []);
  onThePage(<ImportPage />, { canEdit: false });
  expect(screen.getByText(/Readers cannot import/)).toBeTruthy();
});
