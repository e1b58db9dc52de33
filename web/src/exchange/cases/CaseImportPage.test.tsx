/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { GUESS_ALL } from '@caderno/core/exchange';
import { DEFAULT_SETTINGS, type CaseDraft, type CasePreview, type Change, type ProjectSettings } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { caseHead } from '../../../test/heads.ts';
import { onThePage } from '../../../test/onThePage.tsx';
import { ownField } from '../../../test/ownField.ts';
import { standInProject } from '../../../test/standInProject.ts';
import { Refusing } from '../../../test/standInServer.ts';
import { CaseImportPage } from './CaseImportPage.tsx';

afterEach(cleanup);

const CHANNEL = ownField('Channel', 'text');
const DRAFT: CaseDraft = {
  id: '00000000-0000-4000-8000-00000000000a', name: 'office.xlsx', format: 'xlsx', records: 5, sheets: ['Counter', 'Telephone'], sources: [], remembered: false, reading: GUESS_ALL,
  columns: [{ name: 'Key', examples: ['TC-1'] }, { name: 'Case', examples: ['Sign in'] }, { name: 'Do', examples: ['Open'] }], names: { header: 1, rows: ['Key · Case · Do'] },
  mapping: { source: 'office', columns: { Key: 'id', Case: 'title', Do: 'action' }, layout: 'stepRows', headings: true, module: 'Counter' },
};
const PREVIEW: CasePreview = {
  counts: { added: 1, changed: 1, same: 1, gone: 1, conflicts: 1, errors: 0, warnings: 1, steps: 3, conditions: 1, titles: 1 }, gone: ['C-9'],
  added: [{ line: 2, title: 'Sign in as <user>', module: 'Counter', steps: 3, firstStep: 'Open', parameters: ['user'] }],
  changed: [{ id: 'C-1', title: 'Sign out', line: 5, fields: [{ field: 'steps', from: '1. a', to: '1. b' }], conflicts: [{ field: 'own:channel', base: 'a', mine: 'b', theirs: 'c' }] }],
  problems: [{ code: 'value_unknown', severity: 'warning', line: 3, column: 'Priority', field: 'priority', value: 'urgent' } as never],
};
const CHANGE: Change = { id: '00000000-0000-4000-8000-00000000000b', revision: 2, action: 'import', artefact: 'C-2', title: 'Sign in', size: 2, toVersion: 1, fromVersion: null, detail: 'office', note: '1 added, 1 changed', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', undone: false, undid: null };

type Taking = (settings: ProjectSettings) => { version: number; settings: ProjectSettings };
const TAKES: Taking = (settings) => ({ version: 2, settings });

function imported(canEdit = true, taken = TAKES) {
  const server = standInProject([caseHead(1)], [], {
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, fields: [CHANNEL] } }),
    uploadCases: () => DRAFT,
    rereadCases: ({ body }) => ({ ...DRAFT, reading: body.reading, mapping: { ...DRAFT.mapping, module: body.reading.sheet ?? '' } }),
    previewCases: () => PREVIEW,
    readImportProgress: () => ({ state: 'running', done: 1, total: 2 }),
    runCases: () => CHANGE,
    saveSettings: ({ body }) => taken(body),
  });
  onThePage(<CaseImportPage />, { canEdit });
  return server;
}
const bring = (): Promise<void> => userEvent.upload(screen.getByLabelText('File to import'), new File(['Key,Case,Do\nTC-1,Sign in,Open'], 'office.csv'));
const choose = async (label: string, option: string): Promise<void> => {
  fireEvent.click(await screen.findByRole('button', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name: option }));
};

test('what a file would do is shown and corrected before anything is changed; sheets come in one after the other', async () => {
  const server = imported();
  await bring();
  await screen.findByText('1 added with 3 steps · 1 changed · 1 as they are', { exact: false });
  expect(screen.getByText('office.xlsx · 5 rows in it')).toBeTruthy();
  expect(screen.getByText(/same title/).textContent).toContain('is here already');
  expect(screen.getByText(/a plain one is made/).textContent).toContain('1 requirement named in it has no condition yet');
  expect(within(screen.getByRole('region', { name: 'Added cases' })).getByText('<user>')).toBeTruthy();
  expect(within(screen.getByRole('list', { name: 'Problems in the file' })).getByText('line 3, Priority')).toBeTruthy();
  await choose('Do is: Steps: what is done', 'Channel');
  await choose('Each row: is a step of the case above it', 'is a case, its steps in a cell');
  await waitFor(() => expect(server.calls('previewCases').at(-1)?.body).toMatchObject({ mapping: { columns: { Do: 'own:channel' }, layout: 'caseRows' } }));
  expect([screen.getByRole('button', { name: 'Import' }), screen.getByText('1 to choose')]).toMatchObject([{ disabled: true }, {}]);
  fireEvent.click(screen.getByRole('button', { name: 'take all of the file’s' }));
  fireEvent.click(screen.getByRole('button', { name: 'Import' }));
  await screen.findByRole('region', { name: '“Counter” is in' });
  expect(server.calls('runCases')[0]?.body).toMatchObject({ mapping: { columns: { Do: 'own:channel' } }, choices: { 'C-1 own:channel': 'theirs' } });
  fireEvent.click(screen.getByRole('button', { name: 'Read “Telephone”' }));
  await waitFor(() => expect(server.calls('rereadCases')[0]?.body).toMatchObject({ reading: { sheet: 'Telephone', header: null } }));
  expect((await screen.findByLabelText<HTMLInputElement>('Module of those without')).value).toBe('Telephone');
});

test('a column that is none of ours becomes a field of the project, called as it is; where that is refused it is left out', async () => {
  const server = imported();
  await bring();
  await choose('Key is: Id in the source', 'A new field of the project');
  await waitFor(() => expect(server.calls('previewCases').at(-1)?.body).toMatchObject({ mapping: { columns: { Key: expect.stringMatching(/^own:[0-9a-f]{8}$/), Case: 'title' } } }));
  expect(await screen.findByRole('button', { name: 'Key is: Key' })).toBeTruthy();
  expect(server.calls('saveSettings').map(({ body }) => (body as ProjectSettings).fields.map(({ name, type, of }) => [name, type, of]))).toEqual([[['Channel', 'text', CHANNEL.of], ['Key', 'text', ['case']]]]);
  cleanup();
  const refusing = imported(true, () => {
    throw new Refusing({ code: 'role_too_low', needed: 'lead', have: 'analyst' });
  });
  await bring();
  await choose('Key is: Id in the source', 'A new field of the project');
  await waitFor(() => expect(refusing.calls('saveSettings')).toHaveLength(1));
  // It can be chosen again once the answer is there.
  await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Key is: Id in the source' }).disabled).toBe(false));
});

test('whoever may only read is offered no file', () => {
  imported(false);
  expect([screen.queryByLabelText('File to import'), screen.getByText(/Readers cannot import/)]).toMatchObject([null, {}]);
});
