/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE } from '@caderno/core/cases';
import type { CaseId } from '@caderno/core/artefacts';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { StandInServer } from '../../test/standInServer.ts';
import { CaseActions } from './CaseActions.tsx';

afterEach(cleanup);

const server = (): StandInServer =>
  new StandInServer({
    changeMany: ({ body }) => ({ change: null, changed: 'ids' in body.of ? body.of.ids.length : 0, made: [], left: [] }),
    readArtefact: ({ params: { id } }) => ({
      kind: 'case',
      summary: caseHead(Number(id.slice(2)), { version: 3 }),
      content: { ...EMPTY_CASE, title: 'Read the dial' },
      draft: null,
    }),
    readHeads: () => ({ revision: 1, heads: [], next: null, suspectLinks: 0 }),
    readChanges: () => ({ kind: 'changes', since: 1, revision: 1, heads: [], gone: [], touched: [], settings: false, suspectLinks: 0 }),
    readCoverageRows: () => ({ since: null, edition: 1, revision: 1, rows: [], gone: [] }),
  });
const ids = Array.from({ length: 40 }, (_, i) => `C-${i + 1}` as CaseId);

test('of many that are cloned a few are read to be shown, all are made, and empty words replace nothing', async () => {
  const at = server();
  onThePage(<CaseActions chosen={ids} onDone={() => undefined} />);
  fireEvent.click(screen.getByRole('button', { name: 'Clone' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Clone 40 cases' }));
  expect(at.calls('readArtefact')).toHaveLength(8);
  fireEvent.change(dialog.getByLabelText('Word to replace, clone 1, 1'), { target: { value: 'dial' } });
  fireEvent.change(dialog.getByLabelText('What stands in its place, clone 1, 1'), { target: { value: 'display' } });
  fireEvent.click(dialog.getByRole('button', { name: 'and another word' }));
  expect(dialog.getByText('and 32 more cases')).toBeTruthy();
  fireEvent.click(dialog.getByRole('button', { name: 'Make 40 cases' }));
  await waitFor(() => expect(at.calls('changeMany')).toHaveLength(1));
  expect(at.calls('changeMany')[0]?.body).toMatchObject({ of: { ids }, done: { kind: 'clone', parts: ['rows', 'covers', 'tags'], sets: [[{ from: 'dial', to: 'display' }]] } });
});

test('who may only read reads', () => {
  server();
  onThePage(<CaseActions chosen={ids.slice(0, 2)} onDone={() => undefined} />, { canEdit: false });
  expect([screen.getByRole('link', { name: 'Read through' }).getAttribute('href'), screen.queryByRole('button', { name: 'withdraw' })]).toEqual(['/p/read?cases=C-1,C-2', null]);
});
