/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { EMPTY_FEATURE } from '@caderno/core/scenarios';
import type { Change, FeaturesDraft } from '@caderno/contract';
import { onThePage } from '../../../test/onThePage.tsx';
import { featureHead, standInProject } from '../../../test/standInProject.ts';
import { FeatureImportPage } from './FeatureImportPage.tsx';

afterEach(cleanup);

const DRAFT: FeaturesDraft = {
  id: '00000000-0000-4000-8000-00000000000a', name: 'bill.feature',
  counts: { added: 1, changed: 2, same: 3, missing: 1, problems: 1, left: 1, scenarios: 4 },
  added: [{ path: 'new.feature', title: 'New', scenarios: 4 }],
  changed: [
    { id: 'F-1', title: 'Bill', path: 'bill.feature', from: null, both: [{ path: 'parts/p/lines/l/text', mine: 'Then here', theirs: 'Then there' }] },
    { id: 'F-2', title: 'Moved', path: 'to/b.feature', from: 'b.feature', both: [] },
  ],
  conflicts: 1,
  missing: [{ id: 'F-5', path: 'old.feature' }],
  problems: [{ path: 'new.feature', code: 'unexpected_line', line: 4, column: 3, found: 'nonsense' }],
  left: [{ path: 'latin.feature', reason: 'not_text' }],
};
const CHANGE: Change = { id: '00000000-0000-4000-8000-00000000000b', revision: 2, action: 'import', artefact: 'F-9', title: 'New', size: 3, toVersion: 1, fromVersion: null, detail: 'bill.feature', note: '1 added, 2 changed', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', undone: false, undid: null };

function page(canEdit = true) {
  const head = featureHead(1, { title: 'Bill' });
  const server = standInProject([head], [], {
    uploadFeatures: () => DRAFT,
    readArtefact: () => ({ kind: 'feature', summary: head, content: { ...EMPTY_FEATURE, title: 'Bill', path: 'bill.feature' }, draft: null }),
    readImportProgress: () => ({ state: 'running', done: 1, total: 3 }),
    runFeatures: () => CHANGE,
  });
  onThePage(<FeatureImportPage />, { canEdit });
  return server;
}

test('what files would do is said whole, problems by their place; where both changed a line a side is chosen first', async () => {
  const server = page();
  await userEvent.upload(screen.getByLabelText('Folder of features to import'), new File(['Feature: Bill'], 'bill.feature'));
  await screen.findByText('1 added with 4 scenarios · 2 changed · 3 as they are');
  expect(server.calls('uploadFeatures')).toHaveLength(1);
  const told = (name: string) => within(screen.getByRole('region', { name })).getAllByRole('listitem').map((li) => li.textContent);
  expect(told('Problems')).toEqual(['new.feature:4:3“nonsense” cannot stand here: a line begins with a keyword, as Given or Scenario:, or belongs to a table, a doc string or a description.']);
  expect(told('Stay out')).toEqual(['latin.featureis no text in UTF-8']);
  expect(told('Changed')).toEqual(['to/b.featureF-2 Moved, was b.feature']);
  expect(told('Added')).toEqual(['new.featureNew, 4 scenarios']);
  expect(told('Not among them')).toEqual(['old.featureF-5']);
  expect(screen.getByRole('button', { name: 'Import' })).toMatchObject({ disabled: true });
  fireEvent.click(screen.getByRole('button', { name: 'take all of the files’' }));
  fireEvent.click(screen.getByRole('button', { name: 'Import' }));
  await waitFor(() => expect(server.calls('runFeatures')[0]?.body).toEqual({ choices: { 'F-1': 'theirs' } }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/scenarios/F-9'));
});

test('files without a feature are not sent; whoever may only read is offered none', async () => {
  const server = page();
  await userEvent.upload(screen.getByLabelText('Folder of features to import'), new File(['x'], 'notes.txt'));
  await waitFor(() => expect(screen.getByText('Drop a folder or feature files here')).toBeTruthy());
  expect(server.calls('uploadFeatures')).toEqual([]);
  cleanup();
  page(false);
  expect([screen.queryByLabelText('Folder of features to import'), screen.getByText(/Readers cannot import/)]).toMatchObject([null, {}]);
});
