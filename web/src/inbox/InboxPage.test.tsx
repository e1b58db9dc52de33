/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { USUAL_PACE, type InboxChoices, type InboxEntry, type InboxMarks, type InboxReason } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { InboxPage } from './InboxPage.tsx';
import { entryAddress } from './entryWords.ts';

afterEach(cleanup);

const entry = (id: number, reason: InboxReason, more: Partial<InboxEntry> = {}): InboxEntry => ({
  id, reason, by: 'Rui M.', at: '2026-01-02T10:00:00.000Z', artefact: { id: 'C-1', title: 'Give it', isThere: true }, fromVersion: null, toVersion: null, state: null, text: '', count: 1, review: null, because: null, read: false, kept: false, ...more,
});

/** An inbox that keeps its marks. */
function inbox(entries: InboxEntry[], search = '') {
  let now = entries;
  let silent: InboxReason[] = ['imported'];
  let mail: InboxChoices['mail'] = USUAL_PACE;
  const asked: unknown[] = [];
  const server = standInProject([], [], {
    readInbox: ({ query }) => {
      asked.push(query);
      const fitting = now.filter((e) => (query.part === 'all' || (query.part === 'kept' ? e.kept : !e.read)) && (query.reason === undefined || e.reason === query.reason) && (query.before === undefined || e.id < query.before));
      return { entries: fitting.slice(0, 3), more: fitting.length > 3 };
    },
    markInbox: ({ body: { of, read, kept } }: { body: InboxMarks }) => {
      now = now.map((e) => ('ids' in of && !of.ids.includes(e.id) ? e : { ...e, ...(read === undefined ? {} : { read }), ...(kept === undefined ? {} : { kept }) }));
      return { unread: now.filter((e) => !e.read).length };
    },
    readInboxChoices: () => ({ silent, mail }),
    saveInboxChoices: ({ body }) => (({ mail } = body), (silent = [...body.silent]), body),
  });
  onThePage(<InboxPage />, {}, `/p/inbox${search}`);
  return { server, asked, silent: () => silent, mail: () => mail };
}

const lines = () => screen.getAllByRole('listitem').map((l) => within(l).getByRole('link'));
const said = () => lines().map((l) => l.textContent?.replace(/^Not read: /, ''));

test('each says who did what to what, with what was said, and leads to the difference, the place, the review', async () => {
  inbox([
    entry(9, 'changed', { fromVersion: 1, toVersion: 3, state: 'agreed' }),
    entry(8, 'named', { text: 'Why, @Inês V.?' }),
    entry(7, 'review', { artefact: null, review: { number: 3, title: 'Bills' } }),
  ]);
  await screen.findAllByRole('listitem');
  expect(said()).toEqual([expect.stringMatching(/^Rui M\. changed C-1 Give it v1 → v3, agreed/), expect.stringMatching(/^Rui M\. named you on C-1 Give it.*Why, @Inês V\.\?$/), expect.stringMatching(/^Rui M\. asks you to agree to review 3: Bills/)]);
  expect(lines().map((l) => l.getAttribute('href'))).toEqual(['/p/versions/C-1?from=1&to=3', '/p/cases/C-1', '/p/reviews/3']);
  expect([entryAddress('p', entry(1, 'changedMany', { artefact: null })), entryAddress('p', entry(1, 'suspect', { because: 'K-1' })), entryAddress('p', entry(1, 'changed', { state: 'withdrawn' }))]).toEqual(['/p/journal', '/p/cases/C-1', '/p/cases/C-1']);
});

test('by keyboard from line to line, read, not read, kept; what is read leaves the unread ones; the parts and reasons stand in the address', async () => {
  const { server } = inbox([entry(3, 'remarked', { text: null }), entry(2, 'suspect', { because: 'K-1' }), entry(1, 'asked')]);
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(3));
  expect(said()[0]).toMatch(/It was taken back\.$/);
  const key = (name: string, shiftKey = false) => fireEvent.keyDown(document.activeElement!, { key: name, shiftKey });
  lines()[0]!.focus();
  key('ArrowDown');
  expect(document.activeElement).toBe(lines()[1]);
  key('ArrowUp');
  key(' ', true);
  await waitFor(() => expect(server.calls('markInbox').map((c) => c.body)).toEqual([{ of: { ids: [3] }, kept: true }]));
  await waitFor(() => expect(screen.getByRole('button', { name: 'Keep no longer' })).toBeTruthy());
  key(' ');
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(2));
  fireEvent.click(screen.getByRole('button', { name: 'Kept' }));
  await waitFor(() => expect(said()).toEqual([expect.stringMatching(/^Rui M\. said something of/)]));
  expect(screen.getByTitle('Address').textContent).toBe('/p/inbox?part=kept');
  fireEvent.click(screen.getByRole('button', { name: 'Not read' }));
  fireEvent.click(screen.getByRole('button', { name: /^Only/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'Questions you are asked' }));
  await waitFor(() => expect(said()).toEqual([expect.stringMatching(/^Rui M\. asks you/)]));
  expect(screen.getByTitle('Address').textContent).toBe('/p/inbox?reason=asked');
  fireEvent.click(screen.getByRole('button', { name: 'Mark all as read' }));
  expect(await screen.findByText('Nothing new for you')).toBeTruthy();
});

test('earlier ones come when one asks; what reaches one is chosen, at once', async () => {
  const { asked, silent, mail } = inbox(Array.from({ length: 5 }, (_, i) => entry(5 - i, 'changed', { artefact: { id: `C-${i + 1}`, title: `Case ${i + 1}`, isThere: i !== 4 } })), '?part=all');
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(3));
  fireEvent.click(screen.getByRole('button', { name: 'Show earlier ones' }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(5));
  expect([asked, said()[4], screen.queryByRole('button', { name: 'Show earlier ones' })]).toEqual([[{ part: 'all' }, { part: 'all', before: 3 }], expect.stringContaining('Case 5 (gone)'), null]);
  fireEvent.click(screen.getByRole('button', { name: 'What reaches you' }));
  const box = (name: string) => screen.getByRole<HTMLInputElement>('checkbox', { name });
  await waitFor(() => expect([box('Your imports, when they end').checked, box('Changes of what you follow').checked]).toEqual([false, true]));
  fireEvent.click(box('Changes of what you follow'));
  await waitFor(() => expect(silent()).toEqual(['imported', 'changed']));
  fireEvent.click(box('Your imports, when they end'));
  await waitFor(() => expect(silent()).toEqual(['changed']));
  const pace = (name: string) => screen.getByRole<HTMLSelectElement>('combobox', { name: `Mailed: ${name}` });
  expect([pace('Reviews that ask you').value, pace('Changes of what you follow').disabled]).toEqual(['atOnce', true]);
  fireEvent.change(pace('Reviews that ask you'), { target: { value: 'daily' } });
  await waitFor(() => expect([pace('Reviews that ask you').value, mail()]).toEqual(['daily', { ...USUAL_PACE, review: 'daily' }]));
});
