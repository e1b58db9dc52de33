/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ConditionInList } from '../../api/index.ts';
import { onThePage } from '../../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../../test/standInProject.ts';
import { SelectionBar } from './SelectionBar.tsx';

afterEach(cleanup);

const line = (n: number, depths: string[] = []): ConditionInList => ({ id: `K-${n}`, state: 'draft', version: 1, technique: 'plain', broken: false, standings: [], content: { ...EMPTY_CONDITION, title: `Condition ${n}`, depths } }) as unknown as ConditionInList;

function bar(lines: readonly ConditionInList[]) {
  let done = 0;
  const server = standInProject([requirementHead(1), requirementHead(2, { title: 'By card', version: 4 }), requirementHead(3, { state: 'withdrawn' })], [], {
    changeMany: ({ body }) => ({ change: null, changed: 'ids' in body.of ? body.of.ids.length : 0, made: [], left: [] }),
  });
  onThePage(<SelectionBar requirement="R-1" chosen={lines} onWrite={null} onDone={() => (done += 1)} />);
  return { sent: () => server.calls('changeMany').map((c) => c.body), reads: () => server.calls('readDesign').length, done: () => done };
}

async function pick(words: string): Promise<void> {
  const user = userEvent.setup();
  await user.type(await screen.findByRole('combobox', { name: 'Requirement' }), words);
  await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
  await user.keyboard('{Enter}');
}

test.each([
  ['move to …', { kind: 'edit', edit: { kind: 'derivedFrom', requirement: 'R-2', seenVersion: 4, insteadOf: 'R-1' } }, '2 conditions moved from R-1 to R-2'],
  ['also for …', { kind: 'edit', edit: { kind: 'derivedFrom', requirement: 'R-2', seenVersion: 4, insteadOf: null } }, '2 conditions also for R-2'],
  ['copy to …', { kind: 'copyTo', requirement: 'R-2', seenVersion: 4 }, '2 conditions copied to R-2'],
])('%s is one command that names the version one has in view, with nothing read before', async (button, done, detail) => {
  const { sent, reads, done: ended } = bar([line(1), line(2)]);
  fireEvent.click(screen.getByRole('button', { name: button }));
  await pick('card');
  await waitFor(() => expect(ended()).toBe(1));
  expect([sent(), reads()]).toEqual([[{ of: { ids: ['K-1', 'K-2'] }, done, detail }], 0]);
});

test('a depth is set for all unless all have it, and then taken from all', async () => {
  const some = bar([line(1, ['smoke']), line(2)]);
  fireEvent.click(await screen.findByRole('button', { name: 'smoke' }));
  await waitFor(() => expect(some.sent()).toMatchObject([{ done: { edit: { kind: 'depth', depth: 'smoke', belongs: true } } }]));
  cleanup();
  const all = bar([line(1, ['smoke']), line(2, ['core', 'smoke'])]);
  fireEvent.click(await screen.findByRole('button', { name: 'smoke', pressed: true }));
  await waitFor(() => expect(all.sent()).toMatchObject([{ done: { edit: { belongs: false } }, detail: '2 conditions no longer in smoke' }]));
});
