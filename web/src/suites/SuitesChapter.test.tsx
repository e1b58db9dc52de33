/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { CoveringId } from '@caderno/core/artefacts';
import { NO_ITEMS, perTechnique, type ChosenCoverage } from '@caderno/core/coverage';
import { mostShown, smallestCover } from '@caderno/core/covering';
import { EMPTY_SUITE, entryId, membersInOrder, partsWithRules, suiteFigures, suiteMembers, type MemberFacts, type ShowingMembers, type SuiteContent, type SuiteEntry } from '@caderno/core/suites';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, standInProject, suiteHead } from '../../test/standInProject.ts';
import { SuitesChapter } from './SuitesChapter.tsx';
import type { SuiteQuestion } from './suite.worker.ts';

afterEach(cleanup);

const member = (of: CoveringId, pinned: number | null = null): SuiteEntry => ({ kind: 'member', id: entryId(`m${of.replace('/', '.')}`), of, pinned, runsIn: null });
const part = (id: string, depth = 1): SuiteEntry => ({ kind: 'part', id: entryId(id), title: id, depth, rule: null, runsIn: null });
const CONTENT: SuiteContent = { ...EMPTY_SUITE, title: 'Smoke', purpose: 'An hour', entries: [member('C-1'), part('Bills'), member('C-2', 1), member('F-1/2')] };

const heads = [
  suiteHead(1, { title: 'Smoke', folder: 'Release', members: 3 }),
  suiteHead(2, { title: 'Bills', members: 1, rules: 1, state: 'agreed', agreed: 1 }),
  caseHead(1, { title: 'First' }),
  caseHead(2, { title: 'Second', owner: 'Rui M.', version: 3, agreed: 1 }),
  caseHead(3, { title: 'Third', owner: 'Rui M.', tags: ['smoke'], agreed: 1 }),
  caseHead(4, { title: 'Gone', state: 'withdrawn' }),
  featureHead(1, { title: 'Bill', scenarios: [{ number: 2, name: 'a bill', tags: [], steps: 2, instances: 4 }] }),
];

const fact = (more: Partial<MemberFacts> = {}): MemberFacts => ({ state: 'draft', version: 1, head: 1, execution: 'byHand', instances: 1, minutes: 5, ...more });
const FACTS = new Map<CoveringId, MemberFacts>([['C-1', fact({ minutes: null })], ['C-2', fact({ head: 3 })], ['C-3', fact({ execution: 'automated', minutes: 30, instances: 2 })], ['F-1/2', fact({ instances: 4, minutes: 1 })]]);
const SHOWN: ChosenCoverage = {
  counts: { ...NO_ITEMS, shown: 3, gap: 7 }, weighted: { ...NO_ITEMS, shown: 9, gap: 9 }, byTechnique: perTechnique(() => NO_ITEMS),
  byRisk: { high: { items: 6, shown: 2, elsewhere: 3 }, medium: { items: 4, shown: 1, elsewhere: 0 }, low: { items: 0, shown: 0, elsewhere: 0 } },
  requirements: [{ id: 'R-1', title: 'Reading', module: '', risk: 'high', counts: { ...NO_ITEMS, shown: 1, gap: 1 }, conditions: [{ id: 'K-1', standings: ['shown', 'gap'] }] }],
  cases: [{ id: 'C-1', counts: null, shows: 7, alone: 2 }, { id: 'C-2', counts: null, shows: 1, alone: 0 }],
};
/** What the server would say, by the same code but for the coverage; every rule finds C-3. */
const measured = ({ entries, configurations }: Pick<SuiteContent, 'entries' | 'configurations'>) => suiteFigures(suiteMembers({ entries }, new Map(partsWithRules(entries).flatMap((p) => (p.rule.asks === '' ? [] : [[p.id, ['C-3' as const]]])))), configurations, FACTS, [{ of: 'C-2', on: 'C-3' }], SHOWN);
const LINE = { cases: 2, scenarios: 1, instances: 6, byHand: 3, minutes: 9, withoutMinutes: 1, counts: SHOWN.counts };

let projects = 0;
function chapter(path: string, { answers = {}, more = {} }: { readonly answers?: Parameters<typeof standInProject>[2]; readonly more?: object } = {}) {
  const saved: SuiteContent[] = [];
  const server = standInProject(heads, [], {
    readArtefact: () => ({ kind: 'suite', summary: heads[0] as ReturnType<typeof suiteHead>, content: CONTENT, draft: null }),
    measureSuite: ({ body }) => measured(body),
    readSuites: () => [{ id: 'U-1', ...LINE, members: ['C-1', 'C-2', 'F-1/2'] }, { id: 'U-2', ...LINE, counts: NO_ITEMS, members: ['C-2'] }],
    saveArtefact: ({ body }) => (body.kind === 'suite' && saved.push(body.content), new Promise(() => undefined)),
    ...answers,
  });
  const project = `u${(projects += 1)}`;
  onThePage(<SuitesChapter />, { project, ...more }, `/${project}${path}`, `/${project}/suites/:suite?`);
  return { server, saved, project };
}
const lines = () => within(screen.getByRole('list', { name: 'Members' })).getAllByRole('listitem');
const words = () => lines().map((li) => li.querySelector('input')?.value ?? li.textContent);
const ready = () => waitFor(() => expect(screen.getByRole('list', { name: 'Figures of the suite' })).toBeTruthy());
const key = (element: Element | null | undefined, name: string, more: object = {}): void => {
  if (element == null) throw new Error('Keys are pressed somewhere: expected an element');
  fireEvent.keyDown(element, { key: name, ...more });
};

test('the index tells the size of each suite and what it shows; what is in none, and belongs to nobody, stands below', async () => {
  chapter('/suites');
  const suites = await screen.findByRole('list', { name: 'Suites' });
  await waitFor(() => expect(within(suites).getAllByRole('link').map((a) => a.textContent.replaceAll(/\s/g, ' '))).toEqual(['U-1Smoke2 cases · 1 scenario · 9 min30 %', 'U-2Bills2 cases · 1 scenario · 9 min · partly by a rule · agreed']));
  await screen.findByText('In no suite');
  expect(screen.getByText('In no suite').parentElement?.textContent).toBe('In no suite1 case look');
  expect(screen.getByText('Without an owner').parentElement?.textContent).toBe('Without an owner1 case Look');
  fireEvent.click(screen.getByRole('button', { name: 'look' }));
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Third' }));
  expect(screen.getByRole('button', { name: 'Add 1 member to a suite' })).toHaveProperty('disabled', false);
});

test('a suite says what each member shows, means and takes, and what all come to', async () => {
  chapter('/suites/U-1');
  await ready();
  expect(within(screen.getByRole('list', { name: 'Figures of the suite' })).getAllByRole('listitem').map((li) => li.textContent)).toEqual(['30 %3 of 10 items shown', '50 %shown, weighed by risk', '6instances of 2 cases, 1 scenario', '9\u00a0minand 1 member without minutes', '3by hand, 0 automated']);
  await waitFor(() => expect(words()).toEqual(['C-1First+2–', 'Bills', 'C-2Secondv1, newer: v35\u00a0min', 'F-1/2a bill× 4shows nothing4\u00a0min']));
  expect(screen.getByRole('img', { name: 'It shows 1 item, all of them shown by others of the suite too' })).toBeTruthy();
  const margin = within(screen.getByRole('complementary', { name: 'Margin notes' }));
  expect(margin.getByText(/^High risk/).parentElement?.textContent).toContain('2 of 6 shown3 items shown by other cases: add what is missing1 item shown by nothing yet');
  expect(margin.getByText('Newer than meant here').parentElement?.textContent).toContain('C-2 v1 → v3');
  expect(margin.getByText('Dependencies').parentElement?.textContent).toContain('C-2 needs C-3, which is not in it');
  expect(margin.getByText('Also in other suites').parentElement?.textContent).toContain('1 of 3 are also in U-2 Bills');
  fireEvent.click(margin.getByRole('button', { name: 'add C-3' }));
  await waitFor(() => expect(words().at(-1)).toMatch(/^C-3Third/));
});

test('who runs in none of its configurations stays on its line, says so, and counts nowhere', async () => {
  const entries = CONTENT.entries.map((e) => (e.kind === 'member' && e.of === 'C-2' ? { ...e, runsIn: ['gone'] } : e));
  chapter('/suites/U-1', { answers: { readArtefact: () => ({ kind: 'suite', summary: heads[0] as ReturnType<typeof suiteHead>, content: { ...CONTENT, configurations: ['k1'], entries }, draft: null }) } });
  await ready();
  await waitFor(() => expect(words()).toContain('C-2Secondv1, newer: v3, in no configuration'));
  expect(within(lines()[2] as HTMLElement).getByRole('link').className).not.toContain('line-through');
  expect(within(screen.getByRole('list', { name: 'Figures of the suite' })).getByText(/^instances of 1 case, 1 scenario/)).toBeTruthy();
});

test('keys move lines, parts with all that is in them, and take lines out; what is saved is that order', async () => {
  const { saved } = chapter('/suites/U-1');
  await ready();
  key(lines()[2]?.querySelector('a'), 'ArrowUp', { altKey: true });
  expect(words().map((w) => w?.slice(0, 5))).toEqual(['C-1Fi', 'C-2Se', 'Bills', 'F-1/2']);
  key(lines()[2]?.querySelector('input'), 'ArrowRight', { altKey: true });
  key(lines()[0]?.querySelector('a'), 'Delete');
  expect(words().map((w) => w?.slice(0, 5))).toEqual(['C-2Se', 'Bills', 'F-1/2']);
  // In a heading the same key takes a letter away.
  key(lines()[1]?.querySelector('input'), 'Delete');
  expect(lines()).toHaveLength(3);
  fireEvent.click(screen.getByRole('button', { name: /^Save/ }));
  await waitFor(() => expect(saved[0]?.entries.map((e) => (e.kind === 'part' ? `${e.title} ${e.depth}` : e.of))).toEqual(['C-2', 'Bills 2', 'F-1/2']));
});

test('a line is taken out where it stands; a rule fills a part of its own', async () => {
  const { server } = chapter('/suites/U-1');
  await ready();
  const handOff = () => within(screen.getByRole('link', { name: 'Hand it off' }).parentElement as HTMLElement);
  expect(handOff().getByText(/^Give it to those who execute it/)).toBeTruthy();
  fireEvent.focus(lines()[0]?.querySelector('a') as Element);
  fireEvent.click(within(lines()[0] as HTMLElement).getByRole('button', { name: 'Take First out' }));
  expect(words()).toHaveLength(3);
  expect(handOff().getByText(/as it was saved last/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Part kept by a rule' }));
  const rule = await screen.findByRole('group', { name: 'Rule of the part' });
  expect(rule.textContent).toContain('finds nothing yet');
  fireEvent.change(within(rule).getByRole('combobox', { name: /^Filter the cases/ }), { target: { value: 'tag:smoke' } });
  await waitFor(() => expect(rule.textContent).toContain('adds 1'));
  expect(words().at(-1)).toMatch(/^C-3Third× 2/);
  expect(within(lines().at(-1) as HTMLElement).getByRole('img', { name: 'found by the rule' })).toBeTruthy();
  // A heading that is written asks nothing anew.
  const asked = server.called.filter((c) => c.name === 'measureSuite').length;
  fireEvent.change(lines()[0]?.querySelector('input') as Element, { target: { value: 'Invoices' } });
  await waitFor(() => expect(words()[0]).toBe('Invoices'));
  expect(server.called.filter((c) => c.name === 'measureSuite')).toHaveLength(asked);
});

test('where no member covers anything, nobody is called spare and nothing is missed; a heading with a rule says what goes with it', async () => {
  const nothing: ChosenCoverage = { ...SHOWN, counts: NO_ITEMS, weighted: NO_ITEMS, requirements: [], cases: [], byRisk: { high: { items: 0, shown: 0, elsewhere: 0 }, medium: { items: 0, shown: 0, elsewhere: 0 }, low: { items: 0, shown: 0, elsewhere: 0 } } };
  const none = suiteFigures(suiteMembers(CONTENT, new Map()), [], FACTS, [], nothing);
  chapter('/suites/U-1', { answers: { measureSuite: () => none } });
  await ready();
  await screen.findByText('None of its members covers a condition.');
  for (const absent of ['Add nothing of their own', 'What it misses']) expect(screen.queryByText(absent)).toBeNull();
  const heading = lines()[1] as HTMLElement;
  fireEvent.click(within(heading).getByRole('button', { name: 'Let a rule keep Bills' }));
  expect(within(heading).getByRole('button', { name: 'Take away the heading Bills and its rule; members put in by hand stay' })).toBeTruthy();
});

test('several tags are typed with commas between, and saved when one leaves the field', async () => {
  const { saved } = chapter('/suites/U-1');
  await ready();
  fireEvent.click(screen.getByRole('button', { name: /^More/ }));
  const tags = screen.getByLabelText<HTMLInputElement>('Tags:');
  for (const text of ['smoke,', 'smoke, release']) fireEvent.change(tags, { target: { value: text } });
  expect(tags.value).toBe('smoke, release');
  fireEvent.blur(tags);
  fireEvent.click(screen.getByRole('button', { name: /^Save/ }));
  await waitFor(() => expect(saved[0]?.tags).toEqual(['smoke', 'release']));
});

test('what is missing is proposed, and only what stays ticked is added', async () => {
  const { server } = chapter('/suites/U-1', { answers: { findAdditions: () => ({ proposed: [{ id: 'C-3', adds: 3 }], shownByNothing: 1 }) } });
  await ready();
  fireEvent.click(screen.getByRole('button', { name: 'add what is missing' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Add what is missing of high risk' }));
  await waitFor(() => expect(dialog.getByRole('list').textContent).toBe('Third3 items moreC-3'));
  expect(dialog.getByText(/1 item is shown by nothing yet/)).toBeTruthy();
  expect(server.called.filter((c) => c.name === 'findAdditions').map((c) => (c.body as { risk?: string }).risk)).toEqual(['high']);
  fireEvent.click(dialog.getByRole('checkbox', { name: 'Third' }));
  expect(dialog.getByRole('button', { name: 'Add 0 members' })).toHaveProperty('disabled', true);
  fireEvent.click(dialog.getByRole('checkbox', { name: 'Third' }));
  fireEvent.click(dialog.getByRole('button', { name: 'Add 1 member' }));
  await waitFor(() => expect(words().at(-1)).toMatch(/^C-3Third/));
});

test('whoever only reads sees the suite and changes nothing of it', async () => {
  chapter('/suites/U-1', { more: { canEdit: false } });
  await ready();
  expect([screen.queryByRole('combobox', { name: 'Add a case or scenario' }), screen.queryByRole('button', { name: /add what is missing/i }), screen.queryByRole('button', { name: /^Take/ })]).toEqual([null, null, null]);
  key(lines()[0]?.querySelector('a'), 'Delete');
  expect(lines()).toHaveLength(4);
});

/** The worker, with a solver that knows nothing: what is found is what is found at once. */
class AtOnce {
  static ended = 0;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  postMessage(question: SuiteQuestion): void {
    const tell = (found: unknown, isLast: boolean): void => void setTimeout(() => this.onmessage?.({ data: { found, isLast } }), 1);
    if (question.kind === 'order') tell(membersInOrder(question.showing, question.ordering), true);
    else if (question.kind === 'smallest') tell(smallestCover(question.problem, ({ known }) => ({ chosen: known, bound: 0 }), 1, (cover) => tell(cover, false), () => 0), true);
    else tell(mostShown(question.problem, ({ known }) => ({ chosen: known, bound: Number.POSITIVE_INFINITY }), 1, (most) => tell(most, false)), true);
  }
  terminate(): void {
    AtOnce.ended += 1;
  }
}
beforeEach(() => {
  Object.assign(globalThis, { Worker: AtOnce });
  // Nothing is drawn here: what is to be seen is told in words too.
  jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null);
});

const spoken = { times: 1, kept: false, part: null, setUp: null };
const SHOWING: ShowingMembers = { weights: [1, 9], members: [{ of: 'C-1', instances: 1, minutes: null, items: [0, 1], ...spoken }, { of: 'C-2', instances: 1, minutes: 5, items: [1], ...spoken }, { of: 'F-1/2', instances: 4, minutes: 1, items: [], ...spoken }], needs: [] };

test('who adds nothing is told with the reason before anybody is taken out', async () => {
  chapter('/suites/U-1', { answers: { readShowing: () => SHOWING } });
  await ready();
  fireEvent.click(screen.getByRole('button', { name: 'make it smaller' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Make it smaller' }));
  await waitFor(() => expect(dialog.getByRole('status').textContent).toBe('1 of 3 members show the same. Proved: no smaller choice does.'));
  expect(dialog.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['Secondits item is shown by C-1C-2', 'a billit shows nothingF-1/2']);
  fireEvent.click(dialog.getByRole('checkbox', { name: 'a bill' }));
  fireEvent.click(dialog.getByRole('button', { name: 'Take 1 member out' }));
  await waitFor(() => expect(words().map((w) => w?.slice(0, 5))).toEqual(['C-1Fi', 'Bills', 'F-1/2']));
  expect(AtOnce.ended).toBeGreaterThan(0);
});

test('the smallest suite for a risk, a depth or some requirements is told with what nothing shows, and made', async () => {
  const asked: object[] = [];
  const made: SuiteContent[] = [];
  chapter('/suites', {
    answers: {
      readCandidates: ({ body }) => {
        asked.push(body);
        return body.risk === 'low' ? { weights: [], members: [], needs: [], shownByNothing: 2 } : { ...SHOWING, shownByNothing: 1 };
      },
      writeArtefacts: ({ body }) => (body.made.forEach((m) => m.kind === 'suite' && made.push(m.content)), new Promise(() => undefined)),
    },
  });
  fireEvent.click(await screen.findByRole('button', { name: /^smallest suite$/i }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Smallest suite' }));
  await waitFor(() => expect(dialog.getByRole('status').textContent).toBe('1 of 3 members show all of it that is shown. Proved: no smaller choice does.'));
  expect(dialog.getByText('1 item of it is shown by nothing yet: no suite can.')).toBeTruthy();
  const choose = async (option: string): Promise<void> => {
    fireEvent.click(dialog.getByRole('button', { name: /^It is to show/ }));
    fireEvent.click(await screen.findByRole('option', { name: option }));
  };
  await choose('everything of low risk');
  expect(await dialog.findByText('No case or scenario shows any of it.')).toBeTruthy();
  expect(dialog.getByRole('button', { name: 'Make a suite of 0 members' })).toHaveProperty('disabled', true);
  // Which requirements is to be said first: nothing is asked before.
  await choose('everything of some requirements');
  expect(await dialog.findByText(/^Say which requirements/)).toBeTruthy();
  await choose('everything of high risk');
  fireEvent.click(await dialog.findByRole('button', { name: 'Make a suite of 1 member' }));
  await waitFor(() => expect(made).toHaveLength(1));
  expect(made[0]).toMatchObject({ title: 'Everything of high risk', entries: [{ kind: 'member', of: 'C-1', pinned: null }] });
  expect(asked).toEqual([{}, { risk: 'low' }, { risk: 'high' }]);
});

test('configurations are chosen for all of it, and otherwise for a part or a member; what is executed is counted in each', async () => {
  const configurations = ['Counter', 'Telephone', 'At home'].map((name, i) => ({ id: `k${i + 1}`, name, factors: [{ name: 'device', value: `device ${i + 1}` }] }));
  const { saved } = chapter('/suites/U-1', { answers: { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, configurations } }) } });
  await ready();
  const figures = () => screen.getByRole('list', { name: 'Figures of the suite' }).textContent.replaceAll(/\s/g, ' ');
  expect([screen.getByText(/^Runs/).textContent, figures()]).toEqual(['Runs once, in no configuration. choose configurations', expect.stringContaining('6instances of 2 cases, 1 scenario9 min')]);
  const dialog = async (name: string) => within(await screen.findByRole('dialog', { name }));
  const close = async (name: string) => fireEvent.click((await dialog(name)).getByRole('button', { name: 'Close' }));

  fireEvent.click(screen.getByRole('button', { name: 'choose configurations' }));
  // Whatever is ticked first, they stand as in the settings.
  for (const name of [/^At home/, /^Counter/, /^Telephone/]) fireEvent.click((await dialog('Where it runs')).getByRole('checkbox', { name }));
  await close('Where it runs');
  await waitFor(() => expect(figures()).toContain('18instances of 2 cases, 1 scenario in 3 configurations27 min'));
  expect(screen.getByText(/^Runs/).textContent).toContain('Runs in Counter, Telephone, At home.');

  fireEvent.click(screen.getByRole('button', { name: 'Where Bills runs' }));
  for (const name of ['Telephone', 'At home']) fireEvent.click((await dialog('Where Bills runs')).getByRole('checkbox', { name }));
  await close('Where Bills runs');
  fireEvent.click(screen.getByRole('button', { name: 'Where C-2 runs' }));
  const ofMember = await dialog('Where C-2 runs');
  expect(ofMember.getByText(/^It runs/).textContent).toBe('It runs as the part around it.');
  fireEvent.click(ofMember.getByRole('checkbox', { name: 'Counter' }));
  expect(ofMember.getByText(/^It runs nowhere/)).toBeTruthy();
  await close('Where C-2 runs');
  // C-1 in three, C-2 in none, four of the scenario at the counter.
  await waitFor(() => expect(figures()).toContain('7instances'));
  expect(words().map((line) => line?.replaceAll(/\s/g, ' '))).toEqual([expect.stringContaining('First'), 'Bills', expect.stringContaining('in no configuration'), expect.stringContaining('a bill')]);
  expect(lines()[1]?.textContent).toContain('in Counter');
  key(document.body, 's', { ctrlKey: true });
  await waitFor(() => expect(saved.map((s) => [s.configurations, s.entries.map((e) => e.runsIn)])).toEqual([[['k1', 'k2', 'k3'], [null, ['k1'], [], null]]]));
});

test('the order in which most risk is shown soonest is proposed, told in minutes, and taken', async () => {
  const { saved } = chapter('/suites/U-1', { answers: { readShowing: () => SHOWING } });
  await ready();
  fireEvent.click(screen.getByRole('button', { name: 'order and time' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Order and time' }));
  // C-1 shows all in its one minute; in parts it is first already.
  await waitFor(() => expect(dialog.getByText('It is in the order in which most risk is shown soonest.')).toBeTruthy());
  expect(dialog.getByRole('button', { name: 'Put them in this order' })).toHaveProperty('disabled', true);
  cleanup();

  const late: ShowingMembers = { ...SHOWING, weights: [9, 1], members: SHOWING.members.map((m) => (m.of === 'C-1' ? { ...m, minutes: 60, items: [1] } : m.of === 'C-2' ? { ...m, items: [0] } : m)) };
  const other = chapter('/suites/U-1', { answers: { readShowing: () => late } });
  await ready();
  fireEvent.click(screen.getByRole('button', { name: 'order and time' }));
  const again = within(await screen.findByRole('dialog', { name: 'Order and time' }));
  await waitFor(() => expect(again.getByRole('status').textContent).toBe('In the order proposed: 50\u00a0% of the risk it shows after 5\u00a0min, now after 65\u00a0min; 90\u00a0% of the risk it shows after 5\u00a0min, now after 65\u00a0min.'));
  fireEvent.click(again.getByRole('button', { name: /^Members/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'one list, without headings' }));
  await waitFor(() => expect(again.getByRole('button', { name: 'Put them in this order' })).toHaveProperty('disabled', false));
  fireEvent.click(again.getByRole('button', { name: 'Put them in this order' }));
  await waitFor(() => expect(words().map((w) => w?.slice(0, 5))).toEqual(['C-2Se', 'C-1Fi', 'F-1/2']));
  fireEvent.click(screen.getByRole('button', { name: /^Save/ }));
  await waitFor(() => expect(other.saved[0]?.entries).toHaveLength(3));
  expect(saved).toEqual([]);
});

test('what fits in the minutes there are is told with its proof; the others are taken out, or those make a suite', async () => {
  const made: SuiteContent[] = [];
  const byRule: ShowingMembers = { ...SHOWING, weights: [9, 1], members: [{ of: 'C-1', instances: 1, minutes: 60, items: [1], ...spoken }, { of: 'C-2', instances: 1, minutes: 5, items: [0], ...spoken }, { of: 'C-3', instances: 1, minutes: 90, items: [0], ...spoken, times: 1, kept: true }] };
  chapter('/suites/U-1', { answers: { readShowing: () => byRule, createArtefact: ({ body }) => (body.kind === 'suite' && made.push(body.content), new Promise(() => undefined)) } });
  await ready();
  fireEvent.click(screen.getByRole('button', { name: 'order and time' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Order and time' }));
  const limit = await dialog.findByLabelText(/^There are only/);
  const says = async (minutes: string, words: string) => {
    fireEvent.change(limit, { target: { value: minutes } });
    await waitFor(() => expect(within(dialog.getByRole('region', { name: 'What fits' })).getByRole('status').textContent).toBe(words));
  };
  await says('60', 'What rules found, with what it depends on, takes longer than that. Change the rules, or give it more time.');
  await says('100', '90\u00a0% of the risk it shows, by 1 of 3 members in 90\u00a0min. Proved: nothing shows more in that time.');
  expect(dialog.getByRole('button', { name: 'take the other 2 members out' })).toBeTruthy();
  fireEvent.click(dialog.getByRole('checkbox', { name: 'what rules found stays in it' }));
  await says('4', 'Nothing of it fits: the shortest that shows anything takes 5\u00a0min, with what it depends on.');
  await says('70', '100\u00a0% of the risk it shows, by 2 of 3 members in 65\u00a0min. Proved: nothing shows more in that time.');
  expect(dialog.queryByRole('button', { name: /^take the other/ })).toBeNull();
  fireEvent.click(dialog.getByRole('button', { name: 'make a suite of these 2' }));
  await waitFor(() => expect(made).toMatchObject([{ title: 'What fits in 70 minutes', entries: [{ of: 'C-2', pinned: 1 }, { of: 'C-1', pinned: null }] }]));
});
