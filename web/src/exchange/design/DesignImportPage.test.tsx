/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, plainStep, stepId } from '@caderno/core/cases';
import type { Change, DesignDraft } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { caseHead } from '../../../test/heads.ts';
import { onThePage } from '../../../test/onThePage.tsx';
import { standInProject } from '../../../test/standInProject.ts';
import { DesignImportPage } from './DesignImportPage.tsx';

afterEach(cleanup);

const none = { added: 0, changed: 0, same: 0 };
const DRAFT: DesignDraft = {
  id: '00000000-0000-4000-8000-00000000000a', name: 'upper.json', from: { key: 'upper', name: 'Upper town' },
  counts: { requirement: { ...none, same: 4 }, condition: none, case: { added: 1, changed: 2, same: 0 }, question: none, shared: none, dataSet: none, suite: { added: 0, changed: 0, same: 0 },
  feature: none },
  added: [{ kind: 'case', id: 'C-70', title: 'Pay by card' }],
  changed: [
    { kind: 'case', id: 'C-7', here: 'C-1', title: 'Pay in coins', both: [{ path: 'steps/s/action', mine: 'pay here', theirs: 'pay there' }, { path: 'objective', mine: null, theirs: 'why' }] },
    { kind: 'case', id: 'C-8', here: 'C-2', title: 'Pay later', both: [] },
  ],
  conflicts: 1,
  settings: { fields: ['Metal'], constants: ['counter'], depths: [], priorities: ['P0'] },
  out: { links: 2, files: 0, fields: [{ name: 'Colour', count: 3 }], people: [{ name: 'Duarte P.', count: 1 }] },
};
const CHANGE: Change = { id: '00000000-0000-4000-8000-00000000000b', revision: 2, action: 'import', artefact: 'C-9', title: 'Pay by card', size: 3, toVersion: 1, fromVersion: null, detail: 'Upper town', note: '1 added, 2 changed', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', undone: false, undid: null };

function page(canEdit = true) {
  const head = caseHead(1, { title: 'Pay in coins' });
  const server = standInProject([head], [], {
    uploadDesign: () => DRAFT,
    readArtefact: () => ({ kind: 'case', summary: head, content: { ...EMPTY_CASE, title: 'Pay in coins', steps: [plainStep(stepId('s'), 'pay here')] }, draft: null }),
    readImportProgress: () => ({ state: 'running', done: 1, total: 3 }),
    runDesign: () => CHANGE,
  });
  onThePage(<DesignImportPage />, { canEdit });
  return server;
}

test('what a design file would do is said whole; what both changed is chosen before it is done', async () => {
  const server = page();
  await userEvent.upload(screen.getByLabelText('File to import'), new File(['{}'], 'upper.json'));
  await screen.findByText('1 added · 2 changed · 4 as they are');
  expect(screen.getByText('from Upper town')).toBeTruthy();
  expect(screen.getAllByRole('rowheader').map((row) => row.closest('tr')?.textContent)).toEqual(['requirements004', 'cases120']);
  expect(screen.getByText(/The settings get/).textContent).toBe('The settings get what it uses and this project has not: fields Metal; constants <counter>; priorities P0. A secret constant comes without its value.');
  expect(within(screen.getByText(/These stay out/)).getAllByRole('listitem').map((li) => li.textContent)).toEqual(['2 links to what is not in the file', '3 values of the field Colour, which is of another type here', 'Duarte P. as owner of 1 case, who is not in this project']);
  const both = within(screen.getByRole('region', { name: 'Changed here and in the file' }));
  fireEvent.click(both.getByRole('button', { name: 'Look at the 2 places' }));
  await waitFor(() => expect(both.getAllByRole('term').map((term) => term.textContent)).toEqual(['Step 1, action', 'Objective']));
  expect([screen.getByRole('button', { name: 'Import' }), screen.getByText('1 to choose')]).toMatchObject([{ disabled: true }, {}]);
  fireEvent.click(both.getByLabelText('take the file’s'));
  expect(screen.queryByText('1 to choose')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Import' }));
  await waitFor(() => expect(server.calls('runDesign')[0]?.body).toEqual({ choices: { 'C-7': 'theirs' } }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/cases/C-9'));
});

test('whoever may only read is offered no file', () => {
  page(false);
  expect([screen.queryByLabelText('File to import'), screen.getByText(/Readers cannot import/)]).toMatchObject([null, {}]);
});
