/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId, ArtefactState } from '@caderno/core/artefacts';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { ArtefactHead } from './ArtefactHead.tsx';
import type { Editing } from './editing.ts';
import { Contents } from './Contents.tsx';

afterEach(cleanup);

const EDITING = { content: { title: 'Give it' }, version: 3, keep: { kind: 'version' }, dirty: false, theirs: null, update: () => undefined, save: () => Promise.resolve(), discard: () => undefined, settle: () => undefined } as unknown as Editing<{ title: string }>;

function head(id: ArtefactId, state: ArtefactState, { agreed = null as number | null, byHand = true } = {}) {
  const server = standInProject([], [], {
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, agreement: { ...DEFAULT_SETTINGS.agreement, byHand } } }),
    setState: () => {
      throw new Error('not asked for');
    },
  });
  onThePage(<ArtefactHead summary={{ id, author: 'Rui M.', at: '2026-01-01T10:00:00.000Z', version: 3, agreed, meaningSince: 3 }} state={state} editing={EDITING} />);
  return server;
}

async function states(): Promise<(string | null)[]> {
  fireEvent.click(screen.getByRole('button', { name: /^State/ }));
  return (await screen.findAllByRole('option')).map((o) => o.textContent);
}

test('a state is offered where it can be given: in review what is reviewed, agreed where the project lets one', async () => {
  head('C-1', 'draft');
  expect(await states()).toEqual(['Draft', 'In review', 'Agreed', 'Withdrawn']);
  cleanup();
  head('Q-1', 'draft');
  expect(await states()).toEqual(['Draft', 'Agreed', 'Withdrawn']);
  cleanup();
  head('C-1', 'draft', { byHand: false });
  await states();
  await waitFor(() => expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['Draft', 'In review', 'Withdrawn']));
});

test('a draft that one may no longer save is let go, not kept for ever', () => {
  standInProject([], []);
  let discarded = 0;
  const dirty = { ...EDITING, dirty: true, keep: { kind: 'kept' }, discard: () => void (discarded += 1) } as Editing<{ title: string }>;
  const summary = { id: 'C-1', author: 'Rui M.', at: '2026-01-01T10:00:00.000Z', version: 3, agreed: null, meaningSince: 3 } as const;
  onThePage(<ArtefactHead summary={summary} state="draft" editing={dirty} />, { canEdit: false });
  expect(screen.queryByRole('button', { name: /^Save/ })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Discard my draft' }));
  expect(discarded).toBe(1);
  cleanup();
  onThePage(<ArtefactHead summary={summary} state="draft" editing={EDITING} />, { canEdit: false });
  expect(screen.queryByRole('button', { name: 'Discard my draft' })).toBeNull();
});

test('in review is asked for by a review, not set', async () => {
  const server = head('C-1', 'draft');
  await states();
  fireEvent.click(screen.getByRole('option', { name: 'In review' }));
  expect(await screen.findByRole('dialog', { name: 'Ask for a review' })).toBeTruthy();
  expect(server.calls('setState')).toHaveLength(0);
});

test('what is newer than agreed leads to the difference; not what was never agreed, or what a review asks for', async () => {
  head('C-1', 'draft', { agreed: 1 });
  expect((await screen.findByRole('link', { name: 'v1 was agreed' })).getAttribute('href')).toBe('/p/versions/C-1?from=1&to=3');
  for (const [state, agreed] of [['draft', null], ['agreed', 3], ['inReview', 1]] as const) {
    cleanup();
    head('C-1', state, { agreed });
    expect([state, screen.queryByRole('link', { name: /was agreed/ })]).toEqual([state, null]);
  }
});

test('a whole content is read: steps in order, rows below the names of their columns, links by their titles, nothing that says nothing', async () => {
  standInProject([], []);
  const content = {
    title: 'T', objective: 'See it', preconditions: '', kind: 'procedure', tags: ['a', 'b'], runs: { kind: 'all' }, estimate: null, boundaries: 'twoValue',
    steps: [{ id: 's1', kind: 'step', action: 'give <n>', expected: 'it is taken' }, { id: 's2', kind: 'shared', shared: 'S-3', arguments: [] }],
    parameters: [{ id: 'p1', name: 'n', type: 'whole', default: '' }], rows: [{ id: 'r1', name: 'usual', cells: { p1: '5' } }], covers: [{ id: 'K-2', seenVersion: 1 }],
  };
  onThePage(<Contents content={content} beside={(field) => <button type="button">remark on {field}</button>} />);
  const region = (name: string): string => screen.getByRole('region', { name }).textContent ?? '';
  expect([region('Steps'), region('Tags'), region('Boundaries'), region('Covers')]).toEqual([expect.stringContaining('1give <n>⇒ it is taken2SharedS-3'), expect.stringContaining('a, b'), expect.stringContaining('two value'), expect.stringContaining('K-2')]);
  expect(screen.getAllByRole('row').map((r) => [...r.children].map((c) => c.textContent))).toEqual([['', 'n'], ['usual', '5']]);
  expect(screen.getAllByRole('link').map((a) => a.getAttribute('href'))).toEqual(['/p/shared/S-3', '/p/condition/K-2']);
  for (const unsaid of ['Preconditions', 'Estimate', 'Runs', 'Kind', 'Title']) expect([unsaid, screen.queryByRole('region', { name: unsaid })]).toEqual([unsaid, null]);
  expect(screen.getByRole('button', { name: 'remark on objective' })).toBeTruthy();
});
