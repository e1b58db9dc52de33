/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { NO_ITEMS, perTechnique, type StandingCounts } from '@caderno/core/coverage';
import type { TrendFigures } from '@caderno/core/trend';
import type { Trend, TrendPoint } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CurvesShown } from '../charts/index.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';

/** What is asked of the drawing: a canvas draws nothing here. */
let asked: CurvesShown | null = null;
jest.unstable_mockModule('../charts/index.ts', () => ({
  Curves: (shown: CurvesShown) => {
    asked = shown;
    return null;
  },
}));
const { TrendPage } = await import('./TrendPage.tsx');

const counts = (shown: number, gap: number, linked = 0): StandingCounts => ({ ...NO_ITEMS, shown, gap, linked });
const figures = (whole: StandingCounts, more: Partial<TrendFigures> = {}): TrendFigures => ({
  counts: whole, weighted: whole, byRisk: { high: whole, medium: NO_ITEMS, low: NO_ITEMS }, byTechnique: perTechnique(() => NO_ITEMS), byModule: [{ module: 'Readings', counts: whole }, { module: '', counts: NO_ITEMS }], suites: [],
  requirements: 2, unanalysed: 0, cases: 3, instances: 7, minutes: 90, scenarios: { scenarios: 2, byHand: 0, instances: 5, minutes: 30 }, ...more,
});
const point = (revision: number, at: string, whole: StandingCounts, more: Partial<TrendFigures> = {}): TrendPoint => ({ revision, at, figures: figures(whole, more) });
const POINTS = [point(10, '2026-03-01T12:00:00.000Z', counts(0, 4)), point(20, '2026-03-03T12:00:00.000Z', counts(3, 5, 1), { suites: [{ id: 'U-1', title: 'Smoke', counts: counts(1, 8) }] }), point(30, '2026-03-04T12:00:00.000Z', counts(2, 7))];
const NOW = point(33, '2026-03-05T12:00:00.000Z', counts(5, 4));
const TREND: Trend = { points: POINTS, days: 3, left: 0, now: NOW };

let answers: Parameters<typeof standInProject>[2];
const open = (path = '/p/trend') => {
  const server = standInProject([requirementHead(1, { title: 'Valid reading' }), requirementHead(2, { title: 'Bills' })], [], answers);
  onThePage(<TrendPage />, {}, path);
  return server;
};
beforeEach(() => {
  asked = null;
  answers = { readTrend: () => TREND, readBends: () => ({ from: 10, total: 0, bends: [] }) };
});
afterEach(cleanup);

const days = async (): Promise<string[]> => within(await screen.findByRole('table', { name: /^Days/ })).getAllByRole('row').map((row) => row.textContent ?? '');
const address = (): string => screen.getByTitle('Address').textContent ?? '';
const choose = async (label: RegExp, option: string): Promise<void> => {
  fireEvent.click(screen.getByRole('button', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name: option }));
};

test('each day with its share rounded down and what it gained; the curve says the same, at its days, in words too', async () => {
  open();
  expect(await days()).toEqual(['Daywhole project', 'Now55 % +33', expect.stringMatching(/22 % −11$/), expect.stringMatching(/33 % \+33$/), expect.stringMatching(/0 % $/)]);
  expect(asked?.curves.map((c) => [c.name, c.drawn, c.points])).toEqual([['whole project', 'line', [{ x: 0, y: 0 }, { x: 2, y: 300 / 9 }, { x: 3, y: 200 / 9 }, { x: 4, y: 500 / 9 }]]]);
  expect(asked?.words).toBe('share shown. 4 moments. whole project: from 0 % to 55 %.');
  expect([asked?.yMost, asked?.yWords?.(33.9)]).toEqual([100, '33 %']);
});

test('what is told, of what and since when stands in the address; what only the whole has is not offered of its parts', async () => {
  open();
  await days();
  await choose(/^Show/, 'time to execute');
  await waitFor(() => expect(address()).toBe('/p/trend?show=minutes'));
  expect((await days())[1]).toContain('2\u00a0h');
  expect([asked?.yMost, asked?.yStep]).toEqual([120, 30]);
  await choose(/^Of/, 'each suite');
  expect((await days())[0]).toBe('DayU-1 Smoke');
  expect(asked?.curves[0]?.points.map((p) => p.y)).toEqual([null, 100 / 9, null, null]);
  fireEvent.click(screen.getByRole('button', { name: /^Show/ }));
  expect((await screen.findAllByRole('option')).map((o) => o.textContent)).not.toContain('time to execute');
  fireEvent.keyDown(document.activeElement!, { key: 'Escape' });
  await choose(/^Since/, 'the last 7 days');
  await waitFor(() => expect(address()).toContain('days=7'));
});

test('bars of the whole say how its items stand; shares of parts cannot stand on each other', async () => {
  open('/p/trend?as=bars');
  await days();
  expect(asked?.curves.map((c) => [c.name, c.drawn, c.points.map((p) => p.y)])).toEqual([
    ['shown', 'bar', [0, 3, 2, 5]], ['linked only', 'bar', [0, 1, 0, 0]], ['suspect', 'bar', [0, 0, 0, 0]], ['waiting for an answer', 'bar', [0, 0, 0, 0]], ['gap', 'bar', [4, 5, 7, 4]],
  ]);
  expect(asked?.yMost).toBe(10);
  cleanup();
  open('/p/trend?of=risk');
  await days();
  expect(screen.queryByRole('button', { name: /^Drawn as/ })).toBeNull();
  await choose(/^Show/, 'items not shown');
  expect(await screen.findByRole('button', { name: /^Drawn as/ })).toBeTruthy();
});

test('bars of a long time are of several days each, and say what stood at their end; a click opens the day of the last change in them', async () => {
  const at = (day: number): string => new Date(Date.parse('2026-01-01T12:00:00Z') + day * 86_400_000).toISOString();
  answers = { ...answers, readTrend: () => ({ points: [point(10, at(0), counts(1, 4)), point(20, at(50), counts(2, 3)), point(30, at(51), counts(3, 2))], days: 3, left: 0, now: point(33, at(99), counts(5, 0)) }) };
  open('/p/trend?as=bars');
  await days();
  const shown = asked!.curves.find((c) => c.name === 'shown')!.points;
  expect(shown).toHaveLength(34);
  expect(new Set(shown.slice(1).map((p, i) => p.x - shown[i]!.x))).toEqual(new Set([3]));
  for (const { x, y } of shown) expect([x, y]).toEqual([x, x < 50 ? 1 : x < 51 ? 2 : x < 99 ? 3 : 5]);
  expect(screen.getByText('A bar is of 3 days: what stood at their end.')).toBeTruthy();
  asked?.onPoint?.(shown.findIndex((p) => p.x >= 51));
  expect(await screen.findByRole('heading', { name: /February 21/ })).toBeTruthy();
  cleanup();
  open('/p/trend');
  await days();
  expect(asked?.curves[0]?.points.map((p) => p.x)).toEqual([0, 50, 51, 99]);
});

test('a click on a day tells what made the curve bend and what was done, and leads to the days beside it and to the project of then', async () => {
  const journals: object[] = [];
  answers = {
    ...answers,
    listChanges: ({ query }) => {
      journals.push({ after: query.after, before: query.before });
      return [];
    },
    readBends: ({ params }) => ({
      from: 20, total: params.revision === 30 ? 3 : 0,
      bends: params.revision === 30 ? [{ id: 'R-1', title: 'Valid reading', before: counts(3, 1), after: counts(2, 2) }, { id: 'R-2', title: 'Bills', before: NO_ITEMS, after: counts(0, 4) }, { id: 'R-9', title: 'Gone', before: counts(1, 0), after: null }] : [],
    }),
  };
  open();
  await days();
  asked?.onPoint?.(2);
  const lines = await screen.findAllByText(/items? shown|counted no more/);
  expect(lines.map((l) => l.textContent)).toEqual(['2 of 4 items shown, before 3 of 4; gap 2, before 1', '0 of 4 items shown, nothing to show before; gap 4, before 0', 'counted no more; it had 1 item, 1 shown']);
  expect(screen.getByText('3 requirements came to something else')).toBeTruthy();
  expect(screen.getByRole('link', { name: /Look back/ }).getAttribute('href')).toBe('/p@30/coverage');
  await waitFor(() => expect(journals.at(-1)).toEqual({ after: 20, before: 31 }));
  fireEvent.click(screen.getByRole('button', { name: 'Day after' }));
  expect(await screen.findByText('Since the last day')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Day after' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'All days' }));
  expect(await days()).toHaveLength(5);
});

test('the line of one requirement: its days as they were counted, and as it stands now', async () => {
  answers = { ...answers, readRequirementTrend: () => [{ revision: 10, counts: null }, { revision: 20, counts: counts(1, 3) }, { revision: 30, counts: counts(2, 2) }] };
  open('/p/trend?of=requirement');
  expect(await screen.findByText(/Choose the requirement/)).toBeTruthy();
  cleanup();
  const server = open('/p/trend?of=requirement&requirement=R-1');
  await waitFor(() => expect(asked?.curves[0]?.points.map((p) => p.y)).toEqual([null, 25, 50, null]));
  expect(server.calls('readRequirementTrend').at(-1)?.params.id).toBe('R-1');
});

test('while the past is counted the curve becomes finer, and is read again until nothing is left; a count that fails is told', async () => {
  let left = 2;
  answers = {
    ...answers,
    readTrend: () => ({ ...TREND, left, points: POINTS.slice(left) }),
    countTrend: () => {
      left -= 1;
      return { left };
    },
  };
  const server = open();
  await waitFor(async () => expect(await days()).toHaveLength(5));
  await waitFor(() => expect(screen.queryByText(/Counting the past/)).toBeNull());
  expect(server.calls('countTrend')).toHaveLength(2);
  cleanup();
  answers = {
    ...answers,
    readTrend: () => ({ ...TREND, left: 1, points: [] }),
    countTrend: () => {
      throw new Refusing({ code: 'computation_too_heavy' });
    },
  };
  open();
  expect(await screen.findByText(/Some days could not be counted/)).toBeTruthy();
  expect(screen.getByText(/There is only today so far/)).toBeTruthy();
});

test('of many lines those with the largest last value are drawn, the others are named', async () => {
  const modules = Array.from({ length: 8 }, (_, i) => ({ module: `M${i}`, counts: counts(i, 1) }));
  answers = { ...answers, readTrend: () => ({ ...TREND, points: POINTS.map((p) => ({ ...p, figures: { ...p.figures, byModule: modules } })), now: { ...NOW, figures: { ...NOW.figures, byModule: modules } } }) };
  open('/p/trend?of=module&show=shown');
  expect((await days())[0]).toBe('DayM7M6M5M4M3M2');
  expect(screen.getByText('Not drawn, as there are too many: M1.')).toBeTruthy();
});

test('as long as nothing was done since the last day, now is as it was: it leads nowhere of its own', async () => {
  answers = { ...answers, readTrend: () => ({ ...TREND, now: { ...POINTS[2]!, at: NOW.at } }) };
  open();
  expect((await days())[1]).toMatch(/^Now, as before22 %/);
  expect(screen.queryByRole('link', { name: /^Now/ })).toBeNull();
  cleanup();
  open('/p/trend?at=30');
  expect(await screen.findByRole('button', { name: 'Day before' })).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Day after' })).toBeNull();
  expect(screen.queryByText('Since the last day')).toBeNull();
});
