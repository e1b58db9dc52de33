/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { CoverageRow } from '@caderno/core/coverage';
import { itemLines } from '@caderno/core/matrix';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, featureHead, requirementHead, standInProject, suiteHead } from '../../test/standInProject.ts';
import type { StandInServer } from '../../test/standInServer.ts';
import { followPrinting } from '../look/index.ts';
import { MatrixPage } from './MatrixPage.tsx';
import { SHEET_LIMITS, matrixTable, tooLarge } from './matrixTable.ts';
import type { MatrixItem } from './useAxes.ts';

let server: StandInServer;
beforeEach(() => {
  jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null);
  const heads = [
    requirementHead(1, { title: 'Valid reading', module: 'Readings', risk: 'high' }), requirementHead(2, { title: 'Bill', module: 'Bills' }), requirementHead(3, { title: 'Nobody knows', module: 'Bills' }),
    conditionHead(1, { title: 'Digits', requirements: ['R-1'] }), conditionHead(2, { title: 'Sum', requirements: ['R-2'] }),
    caseHead(1, { title: 'Reads', module: 'Readings' }), caseHead(2, { title: 'Pays', module: 'Bills' }), caseHead(3, { title: 'Idles', module: 'Bills' }),
    featureHead(1, { title: 'Paying', scenarios: [{ number: 1, name: 'once', tags: [], steps: 1, instances: 1 }, { number: 2, name: 'never', tags: [], steps: 1, instances: 1 }] }), suiteHead(1, { title: 'Smoke' }),
  ];
  const row = (id: 'K-1' | 'K-2', standings: readonly ('shown' | 'gap')[]): CoverageRow => ({ kind: 'condition', id, weight: 1, standings, techniques: standings.map(() => 'plain' as const) });
  server = standInProject(heads, [row('K-1', ['shown', 'shown', 'gap']), row('K-2', ['gap'])], {
    // Of C-1 two items of K-1 shown and one linked; C-2 claims K-2; a scenario shows K-2.
    readMatrix: ({ query }) => (query.across === 'suites' ? { conditions: ['K-1', 'K-2'], columns: ['U-1'], cells: [0, 0, 2, 0, 0, 0, 0] } : { conditions: ['K-1', 'K-2'], columns: ['C-1', 'C-2', 'F-1/1'], cells: [0, 0, 2, 0, 0, 1, 0, 1, 1, 0, 0, 0, 1, 0, 1, 2, 1, 0, 0, 0, 0] }),
  });
});
afterEach(cleanup);

const grid = (): Promise<HTMLElement> => screen.findByRole('group', { name: /against/ });
const foot = (): string => screen.getByRole('status', { name: 'What is pointed at' }).textContent ?? '';
const address = (): string => screen.getByTitle('Address').textContent ?? '';
/** The heads, headings and all, from the left page or above. */
const names = async (): Promise<(string | null)[]> => within(await grid()).getAllByRole('button').flatMap((b) => (/^(Rows|Columns)/.test(b.getAttribute('aria-label') ?? '') ? [] : [b.getAttribute('aria-label') ?? b.textContent]));
const press = (target: HTMLElement, ...keys: string[]): void => keys.forEach((key) => void fireEvent.keyDown(target, { key }));

test('arrows lead through the squares and onto the names; the foot says what each is, and Enter opens it so that one comes back', async () => {
  onThePage(<MatrixPage />, {}, '/p/matrix', '/p/:page/:id?');
  const paper = await grid();
  expect(await names()).toEqual(['Readings, 1', 'C-1 Reads', 'Bills, 2', 'C-2 Pays', 'C-3 Idles', 'Readings1', 'R-1Valid reading66 %', 'Bills2', 'R-2Bill0 %', 'R-3Nobody knowsnone']);
  fireEvent.focus(paper);
  press(paper, 'ArrowDown', 'ArrowRight', 'ArrowRight');
  expect(foot()).toContain('R-1 Valid reading × C-1 Reads2 shown, 1 linked only');
  press(paper, 'ArrowRight', 'ArrowRight');
  expect(foot()).toContain('R-1 Valid reading × C-2 Paysnothing to do with each other');
  press(paper, 'ArrowDown', 'ArrowDown');
  expect(foot()).toContain('R-2 Bill × C-2 Pays1 linked only');
  press(paper, 'Enter');
  await waitFor(() => expect(address()).toBe('/p/cases/C-2'));
  cleanup();
  onThePage(<MatrixPage />, {}, '/p/matrix?row=R-2&column=C-2', '/p/:page/:id?');
  await grid();
  expect(foot()).toContain('R-2 Bill × C-2 Pays');
});

test('by a name the other side is sorted and narrowed, and put back; both stand in the address', async () => {
  onThePage(<MatrixPage />, {}, '/p/matrix');
  fireEvent.click(within(await grid()).getByRole('button', { name: 'C-2 Pays' }));
  expect(foot()).toContain('C-2 Paysshows 0 items · meets 1 requirement in view');
  fireEvent.click(screen.getByRole('button', { name: 'its requirements first' }));
  // Sorted, there are no headings at the left, and what it does not meet follows.
  await waitFor(async () => expect((await names()).slice(5)).toEqual(['R-2Bill0 %', 'R-1Valid reading66 %', 'R-3Nobody knowsnone']));
  expect(address()).toContain('basis.order=C-2');
  fireEvent.click(screen.getByRole('button', { name: 'only its requirements' }));
  await waitFor(async () => expect((await names()).slice(5)).toEqual(['R-2Bill0 %']));
  expect(screen.getByText('1 of 3 requirements × 3 cases')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'only requirements that meet C-2: all again' }));
  fireEvent.click(screen.getByRole('button', { name: 'requirements in their own order' }));
  await waitFor(async () => expect(await names()).toHaveLength(10));
  // A module folds into one line that sums it.
  fireEvent.click(within(await grid()).getByRole('button', { name: 'Bills, 2' }));
  await waitFor(async () => expect((await names()).slice(0, 3)).toEqual(['Readings, 1', 'C-1 Reads', 'Bills, 2']));
  press(await grid(), 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown');
  expect(foot()).toContain('R-2 Bill × Bills1 linked only');
});

test('what meets nothing at all is counted and found at once, whatever stands on the other side', async () => {
  onThePage(<MatrixPage />, {}, '/p/matrix');
  fireEvent.click(await screen.findByRole('button', { name: '1 requirement without any case' }));
  await waitFor(async () => expect((await names()).slice(5)).toEqual(['R-3Nobody knowsnone']));
  fireEvent.click(screen.getByRole('button', { name: 'all requirements again' }));
  expect(await screen.findByRole('button', { name: '1 case covers nothing' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Against: cases' }));
  fireEvent.click(await screen.findByRole('option', { name: 'scenarios' }));
  // A requirement that only cases show is without any scenario.
  expect(await screen.findByRole('button', { name: '2 requirements without any scenario' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^Against/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'suites' }));
  expect(await screen.findByText('3 requirements × 1 suite')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /Turn/ }));
  await waitFor(async () => expect((await names()).at(-1)).toBe('U-1Smoke2'));
  expect(server.calls('readMatrix')).toHaveLength(2);
});

test('queries leave only what they find; what is empty then is hidden, and where nothing is left the page says so', async () => {
  onThePage(<MatrixPage />, {}, '/p/matrix?basis.query=risk:high&met=yes');
  await waitFor(async () => expect(await names()).toEqual(['C-1 Reads', 'R-1Valid reading66 %']));
  expect(screen.getByText('1 of 3 requirements × 1 of 3 cases')).toBeTruthy();
  cleanup();
  onThePage(<MatrixPage />, {}, '/p/matrix?basis.query=risk:low&basis.folded=%7Bbroken');
  expect(await screen.findByText('Nothing is left in view')).toBeTruthy();
  cleanup();
  standInProject([], [], { readMatrix: () => ({ conditions: [], columns: [], cells: [] }) });
  onThePage(<MatrixPage />, {}, '/p/matrix');
  expect(await screen.findByText('There are no requirements yet')).toBeTruthy();
});

test('on paper each row says what it meets; a sheet has the same in its squares, and its bounds are known before', async () => {
  followPrinting();
  onThePage(<MatrixPage />, {}, '/p/matrix');
  await grid();
  act(() => void dispatchEvent(new Event('beforeprint')));
  expect(screen.getAllByRole('row').map((r) => r.textContent)).toEqual(['Readings', 'R-1Valid reading 66 %C-1: 2 shown, 1 linked only', 'Bills', 'R-2Bill 0 %C-2: 1 linked only', 'R-3Nobody knows none–']);
  act(() => void dispatchEvent(new Event('afterprint')));
  const item = (id: string, title: string): MatrixItem => ({ id, title, figure: { kind: 'shows', items: 1 }, group: '', places: [] }) as unknown as MatrixItem;
  const [down, across] = [itemLines([item('R-1', '=1+1')]), itemLines([item('C-1', 'a'), item('C-2', 'b')])];
  expect(matrixTable({ down, across, matrix: { rows: [[{ at: 1, counts: [3, 0, 1, 0, 0] }]], met: [0, 1] } })).toEqual([
    ['Id', 'Title', 'Shown', 'C-1', 'C-2'],
    ['', '', '', 'a', 'b'],
    ['R-1', '=1+1', '1', '', '3 shown, 1 waiting for an answer'],
  ]);
  const lines = (count: number) => itemLines(Array.from({ length: count }, () => item('R-1', '')));
  expect([tooLarge({ down, across: lines(SHEET_LIMITS.columns - 2) }), tooLarge({ down: lines(2_000), across: lines(1_001) }), tooLarge({ down: lines(2_000), across: lines(1_000) })]).toEqual(['columns', 'squares', null]);
});
