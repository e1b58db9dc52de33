/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { DOUBTS, handOffNumber, type Doubt, type HandOffLine } from '@caderno/core/handOffs';
import { baselineNumber } from '@caderno/core/baselines';
import { DEFAULT_SETTINGS, type HandOff, type HandOffListed, type HandOffMember, type Member, type NewHandOff } from '@caderno/contract';
import { EMPTY_SUITE } from '@caderno/core/suites';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, standInProject, suiteHead } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { followPrinting } from '../look/index.ts';
import { DOUBT_NAME, doubtWords } from './doubtWords.ts';
import { HandOffsChapter, NewHandOffPage } from './index.ts';

afterEach(cleanup);
beforeEach(() => sessionStorage.clear());

const member = (of: HandOffMember['of'], more: Partial<HandOffMember> = {}): HandOffMember => ({ of, version: 1, title: `Title of ${of}`, module: '', owner: '', execution: 'byHand', minutes: 10, instances: 2, runsIn: null, same: false, doubts: [], ...more });
const MEMBERS = [
  member('C-1', { doubts: [{ kind: 'unbound', names: ['reading'] }, { kind: 'notAgreed', state: 'draft' }] }),
  member('C-2', { minutes: 40, doubts: [{ kind: 'notAgreed', state: 'inReview' }] }),
  member('C-3', { execution: 'automated' }),
  member('F-1/1', { instances: 0, doubts: [{ kind: 'noInstances' }] }),
];
const PEOPLE: Member[] = ['Rui M.', 'Olga S.'].map((name, i) => ({ id: `00000000-0000-4000-8000-00000000000${i}`, name, email: 'a@b.example', role: 'analyst', sees: null }));
const CONFIGURATIONS = [{ id: 'web', name: 'On the web', factors: [{ name: 'browser', value: 'newest' }] }, { id: 'tablet', name: 'In the street', factors: [] }];
const HEADS = [suiteHead(1, { title: 'Smoke' }), caseHead(1), caseHead(2), caseHead(3), featureHead(1)];
const LISTED: HandOffListed = { number: handOffNumber(1), name: 'Round 6', note: 'Begin with the bills', of: 'U-1', baseline: baselineNumber(3), due: '2031-01-31', by: 'Inês V.', at: '2031-01-01T10:00:00.000Z', instances: 5, minutes: 60, people: ['Rui M.'] };

const ofSuite = (configurations: readonly string[]) => ({ kind: 'suite' as const, summary: suiteHead(1, { title: 'Smoke' }), content: { ...EMPTY_SUITE, title: 'Smoke', configurations }, draft: null });

function handingOff(path = '/p/hand-offs/new?suite=U-1', refuse = false, rights = {}, members = MEMBERS, runsIn: readonly string[] = []) {
  const made: NewHandOff[] = [];
  const server = standInProject(HEADS, [], {
    readArtefact: () => ofSuite(runsIn),
    listMembers: () => PEOPLE,
    listBaselines: () => [],
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, configurations: CONFIGURATIONS } }),
    readHandOff: () => ({ ...LISTED, configurations: [{ id: 'web', name: 'On the web', factors: [] }, { id: 'gone', name: 'Gone', factors: [] }], lines: [], now: [] }),
    previewHandOff: () => ({ members, absent: ['C-9'] }),
    makeHandOff: ({ body }) => {
      made.push(body);
      if (refuse) throw new Refusing({ code: 'hand_off_of_nothing' });
      return { ...LISTED, name: body.name };
    },
  });
  onThePage(<NewHandOffPage />, rights, path, '/p/hand-offs/new');
  return { made, server };
}

const tick = async (name: string | RegExp) => fireEvent.click(await screen.findByRole('checkbox', { name }));
const button = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Hand off/ });
const shares = () => screen.queryAllByRole('row').slice(1).map((row) => [...row.children].map((cell) => cell.textContent));
const titles = () => within(screen.getByRole('list', { name: 'Cases and scenarios' })).getAllByRole('link').map((a) => a.textContent);

test('each case says what is doubtful, by kinds that narrow the list; what is left out stays behind, what cannot be handed off is not offered', async () => {
  const { made } = handingOff();
  expect(await screen.findByText('no value for <reading> · draft')).toBeTruthy();
  expect(within(screen.getByRole('group', { name: 'Doubts' })).getAllByRole('button').map((b) => b.textContent)).toEqual(['1 without a row that runs', '1 without a value', '2 not agreed']);
  expect([screen.getByText(/withdrawn or gone: C-9/), screen.getByRole<HTMLInputElement>('checkbox', { name: 'Hand off F-1/1' }).disabled, button().textContent]).toEqual([expect.anything(), true, 'Hand off 6 instances']);
  fireEvent.click(screen.getByRole('button', { name: '1 without a value' }));
  expect(titles()).toEqual(['C-1']);
  fireEvent.click(screen.getByRole('button', { name: 'leave it out' }));
  fireEvent.click(screen.getByRole('button', { name: '1 without a value' }));
  expect([titles(), button().textContent, screen.getByText(/^1 left out/)]).toEqual([['C-1', 'C-2', 'C-3', 'F-1/1'], 'Hand off 4 instances', expect.anything()]);
  fireEvent.click(button());
  await waitFor(() => expect(made).toEqual([{ of: { suite: 'U-1' }, name: 'Smoke', note: '', due: null, configurations: [], leftOut: ['C-1'], people: [], dividing: 'evenly', chosen: [] }]));
});

test('work is given out, line by line otherwise if one says so, in each configuration; whoever comes back finds it as it was', async () => {
  const { made } = handingOff(undefined, true);
  await tick('Rui M.');
  fireEvent.change(screen.getByRole('textbox', { name: 'Somebody else' }), { target: { value: ' A tester ' } });
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'Somebody else' }), { key: 'Enter' });
  expect(shares()).toEqual([['A tester', '2', '20\u00a0min'], ['Rui M.', '2', '80\u00a0min'], ['automated', '2', '']]);
  await tick(/On the web/);
  await tick(/In the street/);
  expect(button().textContent).toBe('Hand off 12 instances');
  fireEvent.click(screen.getByRole('button', { name: 'Who executes C-1, On the web: Rui M.' }));
  fireEvent.click(await screen.findByRole('option', { name: 'nobody' }));
  expect(shares().at(-2)).toEqual(['nobody yet', '2', '20\u00a0min']);
  fireEvent.change(screen.getByLabelText(/^Until/), { target: { value: '2031-01-31' } });
  fireEvent.click(button());
  await waitFor(() => expect(made.map(({ people, configurations, due, chosen }) => [people, configurations, due, chosen])).toEqual([[['Rui M.', 'A tester'], ['web', 'tablet'], '2031-01-31', [{ of: 'C-1', configuration: 'web', person: '' }]]]));
  await waitFor(() => expect(button().disabled).toBe(false));
  cleanup();
  handingOff();
  expect([(await screen.findByRole<HTMLInputElement>('checkbox', { name: 'A tester' })).checked, screen.getByLabelText<HTMLInputElement>(/^Until/).value]).toEqual([true, '2031-01-31']);
  fireEvent.click(screen.getByRole('button', { name: 'give all out anew' }));
  expect(shares().map(([who]) => who)).toEqual(['Rui M.', 'A tester', 'automated']);
});

test('where the suite runs is ticked at first; each is executed only where it runs, and whoever runs nowhere says so', async () => {
  handingOff(undefined, false, {}, [member('C-1'), member('C-2', { runsIn: ['tablet'] }), member('C-3', { runsIn: ['gone'] })], ['tablet', 'web', 'gone']);
  const isTicked = async (name: RegExp) => (await screen.findByRole<HTMLInputElement>('checkbox', { name })).checked;
  expect([await isTicked(/On the web/), await isTicked(/In the street/), button().textContent]).toEqual([true, true, 'Hand off 6 instances']);
  const notes = () => screen.getAllByText(/^runs in none of the chosen/).map((note) => note.closest('li')?.querySelector('a')?.textContent);
  expect(notes()).toEqual(['C-3']);
  expect(screen.getByText(/in In the street$/).closest('li')?.querySelector('a')?.textContent).toBe('C-2');
  await tick(/In the street/);
  expect([button().textContent, notes()]).toEqual(['Hand off 2 instances', ['C-2', 'C-3']]);
  // In none at all everything is executed once.
  await tick(/On the web/);
  expect([button().textContent, screen.queryByText(/^runs in none/)]).toEqual(['Hand off 6 instances', null]);
});

test('handed off again it begins as before, and what is executed as it was may stay behind', async () => {
  const { made } = handingOff('/p/hand-offs/new?suite=U-1&since=1', false, {}, MEMBERS.map((m) => ({ ...m, same: m.of === 'C-2' || m.of === 'C-3' })));
  expect(await screen.findByText(/^2 of 4 are executed as in H-1/)).toBeTruthy();
  expect([screen.getByRole<HTMLInputElement>('checkbox', { name: 'Rui M.' }).checked, screen.getByRole<HTMLInputElement>('checkbox', { name: /On the web/ }).checked, screen.getByRole<HTMLInputElement>('checkbox', { name: /In the street/ }).checked]).toEqual([true, true, false]);
  fireEvent.click(screen.getByRole('button', { name: 'hand off only what changed' }));
  expect(button().textContent).toBe('Hand off 2 instances');
  fireEvent.click(button());
  await waitFor(() => expect(made.map((m) => [m.leftOut, m.people, m.configurations])).toEqual([[['C-2', 'C-3'], ['Rui M.'], ['web']]]));
});

test('a configuration that cannot be handed off in is said, and unticked again; one that is gone from the settings is forgotten', async () => {
  sessionStorage.setItem('caderno hand-off p U-1 ', JSON.stringify({ name: 'Kept', note: '', due: '', configurations: ['gone'], people: [], dividing: 'evenly', leftOut: [], chosen: {} }));
  const asked: string[][] = [];
  standInProject(HEADS, [], {
    readArtefact: () => ofSuite([]),
    listMembers: () => PEOPLE,
    listBaselines: () => [],
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, configurations: CONFIGURATIONS } }),
    previewHandOff: ({ body }) => {
      asked.push([...body.configurations]);
      if (body.configurations.includes('web')) throw new Refusing({ code: 'configuration_unknown' });
      return { members: MEMBERS, absent: [] };
    },
  });
  onThePage(<NewHandOffPage />, {}, '/p/hand-offs/new?suite=U-1', '/p/hand-offs/new');
  expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'Name' })).value).toBe('Kept');
  await tick(/On the web/);
  expect(await screen.findByText(/not in the project’s settings any more/)).toBeTruthy();
  expect(button().disabled).toBe(true);
  await tick(/On the web/);
  expect(await screen.findByText('no value for <reading> · draft')).toBeTruthy();
  expect([asked[0], button().disabled]).toEqual([[], false]);
});

test('without saying of what, it is chosen; who may only read is told so', async () => {
  handingOff('/p/hand-offs/new');
  expect((await screen.findByRole('link', { name: /Smoke/ })).getAttribute('href')).toBe('/p/hand-offs/new?suite=U-1');
  cleanup();
  handingOff(undefined, false, { canEdit: false });
  expect(await screen.findByText('You can read here')).toBeTruthy();
});

const line = (of: HandOffLine['of'], more: Partial<HandOffLine> = {}): HandOffLine => ({ of, version: 2, title: `Title of ${of}`, module: '', owner: '', execution: 'byHand', configuration: null, instances: 2, minutes: 10, person: 'Rui M.', ...more });

function opened(lines: HandOffLine[], now: HandOff['now'] = [], all = [LISTED]) {
  const server = standInProject(HEADS, [], { listHandOffs: () => all, readHandOff: () => ({ ...(all[0] ?? LISTED), configurations: CONFIGURATIONS, lines, now }) });
  onThePage(<HandOffsChapter />, {}, '/p/hand-offs', '/p/hand-offs/:handOff?');
  return server;
}

test('a hand-off tells who does what, each part with its files, and what is newer by now', async () => {
  opened([line('C-1', { configuration: 'web' }), line('C-2', { person: '' }), line('C-3', { execution: 'automated', person: '' })], [{ of: 'C-1', version: 4 }, { of: 'C-3', version: 0 }]);
  expect((await screen.findByRole('heading', { level: 2 })).textContent).toBe('Round 6');
  const newer = within(screen.getByRole('region', { name: 'Newer by now' }));
  expect([newer.getByRole('link', { name: 'v2 → v4' }).getAttribute('href'), newer.getByText('withdrawn or gone')]).toEqual(['/p/versions/C-1?from=2&to=4', expect.anything()]);
  const rows = within(screen.getByRole('table', { name: 'What is executed' })).getAllByRole('row').slice(1);
  expect(rows.map((row) => [...row.children].map((cell) => cell.textContent))).toEqual([['C-1 v2', 'Title of C-1', 'On the web', '2', '20\u00a0min', 'Rui M.'], ['C-2 v2', 'Title of C-2', '', '2', '20\u00a0min', 'nobody yet'], ['C-3 v2', 'Title of C-3', '', '2', '20\u00a0min', 'automated']]);
  fireEvent.click(screen.getByRole('button', { name: 'Save the part of nobody' }));
  // No scenario is in it, and the schema is of the whole.
  expect((await screen.findAllByRole('menuitem')).map((item) => item.textContent)).toEqual(['Workbook to fill in (XLSX)', 'Page to tick, without a network (HTML)', 'CSV', 'Markdown', 'JSON for a tool']);
});

test('a long one shows its first lines, and all when they are wanted; where there is none the page says what it is for', async () => {
  opened(Array.from({ length: 250 }, (_, i) => line(`C-${i + 1}`)));
  const table = await screen.findByRole('table', { name: 'What is executed' });
  expect(within(table).getAllByRole('row')).toHaveLength(201);
  fireEvent.click(screen.getByRole('button', { name: '50 more' }));
  expect(within(table).getAllByRole('row')).toHaveLength(251);
  cleanup();
  opened([], [], []);
  expect(await screen.findByText('Nothing was handed off yet')).toBeTruthy();
});

test('every doubt is told in words of its own', () => {
  const doubts: Doubt[] = [
    { kind: 'tooLarge' }, { kind: 'noInstances' }, { kind: 'nothingToDo' }, { kind: 'unbound', names: ['a', 'b'] }, { kind: 'gone', ids: ['S-1'] }, { kind: 'nothingExpected' }, { kind: 'unclear', words: ['some'] }, { kind: 'suspect', ids: ['K-1'] }, { kind: 'notAgreed', state: 'inReview' }, { kind: 'outside', ids: ['C-7'] }, { kind: 'noMinutes' },
  ];
  expect(doubts.map((d) => d.kind)).toEqual([...DOUBTS]);
  expect(doubts.map(doubtWords)).toEqual([
    'too large to be opened: it is left out', 'no row runs: it is left out', 'says nothing to do', 'no value for <a>, <b>', 'uses S-1, which is gone', 'says nothing that is expected', 'unclear words: some', 'K-1 changed since it was linked', 'in review', 'needs C-7, not handed off with it', 'no minutes',
  ]);
  expect(DOUBTS.map((kind) => DOUBT_NAME[kind](2)).every((words) => words.startsWith('2 '))).toBe(true);
});

test('who may only read sees a hand-off with its files, and is offered nothing else; on paper all its lines stand', async () => {
  const lines = Array.from({ length: 250 }, (_, i) => line(`C-${i + 1}`));
  standInProject(HEADS, [], { listHandOffs: () => [LISTED], readHandOff: () => ({ ...LISTED, configurations: [], lines, now: [] }) });
  followPrinting();
  onThePage(<HandOffsChapter />, { canEdit: false }, '/p/hand-offs/1', '/p/hand-offs/:handOff?');
  expect(await screen.findByRole('button', { name: 'Save as a file' })).toBeTruthy();
  expect([screen.queryByText('Hand it off again'), screen.queryByText('Bring back what was remarked'), screen.queryByText('Hand something off')]).toEqual([null, null, null]);
  act(() => void window.dispatchEvent(new Event('beforeprint')));
  expect(within(screen.getByRole('table', { name: 'What is executed' })).getAllByRole('row')).toHaveLength(251);
  act(() => void window.dispatchEvent(new Event('afterprint')));
});

test('more than may be handed off is not offered to be; nothing left is said', async () => {
  handingOff(undefined, false, {}, [member('C-1', { instances: 60_000 }), member('C-2', { instances: 50_000 })]);
  expect((await screen.findByRole('alert')).textContent).toMatch(/^100,000 instances are the most/);
  expect(button().disabled).toBe(true);
  await tick('Hand off C-1');
  expect([screen.queryByRole('alert'), button().disabled]).toEqual([null, false]);
  await tick('Hand off C-2');
  expect([screen.getByRole('alert').textContent, button().disabled]).toEqual(['Nothing is left to hand off.', true]);
  fireEvent.click(screen.getByRole('button', { name: 'take them all' }));
  expect(titles()).toEqual(['C-1', 'C-2']);
});

test('an address that names no hand-off, or one of a baseline, is told apart', async () => {
  opened([line('C-1')], [], [{ ...LISTED, of: 'B-2', baseline: baselineNumber(2) }]);
  expect((await screen.findByRole('link', { name: 'B-2' })).getAttribute('href')).toBe('/p/baselines/2');
  cleanup();
  standInProject(HEADS, [], { listHandOffs: () => [LISTED] });
  onThePage(<HandOffsChapter />, {}, '/p/hand-offs/9', '/p/hand-offs/:handOff?');
  expect(await screen.findByText('No such hand-off')).toBeTruthy();
});
