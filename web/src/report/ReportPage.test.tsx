/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { baselineNumber } from '@caderno/core/baselines';
import { NO_ITEMS, perTechnique, type StandingCounts } from '@caderno/core/coverage';
import type { DesignReport } from '@caderno/core/report';
import type { Baseline } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { CurvesShown } from '../charts/index.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';

/** What is asked of the drawing: a canvas draws nothing here. */
let asked: CurvesShown | null = null;
jest.unstable_mockModule('../charts/index.ts', () => ({
  Curves: (shown: CurvesShown) => {
    asked = shown;
    return null;
  },
}));
/** What was handed to the person: the name of the file and what is in it. */
const saved: [string, Blob][] = [];
URL.createObjectURL = (blob) => {
  saved.push(['', blob as Blob]);
  return 'blob:x';
};
URL.revokeObjectURL = () => undefined;
HTMLAnchorElement.prototype.click = function named(): void {
  saved.at(-1)![0] = this.download;
};
const textOf = (blob: Blob): Promise<string> =>
  new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(blob);
  });
const { ReportPage } = await import('./ReportPage.tsx');

const counts = (shown: number, gap: number): StandingCounts => ({ ...NO_ITEMS, shown, gap });
const REPORT: DesignReport = {
  project: 'Fonte Clara', at: '2026-03-05T12:00:00.000Z',
  figures: { counts: counts(3, 1), weighted: counts(3, 1), byRisk: { high: counts(3, 1), medium: NO_ITEMS, low: NO_ITEMS }, byTechnique: perTechnique(() => NO_ITEMS), byModule: [], suites: [], requirements: 2, unanalysed: 1, cases: 2, instances: 4, minutes: 12, scenarios: { scenarios: 0, byHand: 0, instances: 0, minutes: 0 } },
  worst: { first: [{ id: 'R-2', title: 'Bills', module: 'Bills', risk: 'high', counts: counts(0, 1), isAnalysed: true }], more: 3 },
  waiting: [{ who: 'Rui M.', questions: [{ id: 'Q-1', title: 'How much?', holdsUp: 2 }], reviews: [] }],
  trend: { points: [{ at: '2026-03-01T12:00:00.000Z', counts: counts(0, 4) }], left: 0 }, since: null, unreadable: 0,
};
const baseline = (number: number, name: string, part = ''): Baseline => ({ number: baselineNumber(number), name, note: '', by: 'Rui M.', at: '2026-03-02T12:00:00.000Z', part, revision: 9, seal: 'a'.repeat(64), counts: {}, agreed: 0, coverage: null });
const since = (number: number, name: string): DesignReport['since'] => ({ number: baselineNumber(number), name, at: '2026-03-02T12:00:00.000Z', part: '', figures: null, kinds: [{ kind: 'case', added: 1, meant: 0, gone: 0 }], requirements: { first: [], more: 0 } });

let answers: Parameters<typeof standInProject>[2];
const open = (path = '/p/report') => {
  const server = standInProject([], [], answers);
  onThePage(<ReportPage />, {}, path);
  return server;
};
beforeEach(() => {
  localStorage.clear();
  saved.length = 0;
  answers = {
    listBaselines: () => [baseline(3, 'Of a suite', 'suite U-1'), baseline(2, 'Pilot'), baseline(1, 'First')],
    readReport: ({ query }) => ({ ...REPORT, since: query.since === undefined ? null : since(query.since, query.since === 2 ? 'Pilot' : 'First') }),
  };
});
afterEach(cleanup);

const sheet = async () => within(await screen.findByRole('article'));

test('it is held against the latest baseline of everything until one chooses another, or none; the address says which', async () => {
  open();
  expect((await sheet()).getByRole('region', { name: 'What changed since B-2 Pilot' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /Held against/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'B-1 First' }));
  await screen.findByRole('region', { name: 'What changed since B-1 First' });
  expect(screen.getByTitle('Address').textContent).toBe('/p/report?since=1');
  fireEvent.click(screen.getByRole('button', { name: /Held against/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'no baseline' }));
  await waitFor(() => expect(screen.queryByRole('region', { name: /What changed/ })).toBeNull());
});

test('what it names is a click away, bars and curve are told in words, what is not told is counted', async () => {
  open('/p/report?since=none');
  const { getByRole, getByText } = await sheet();
  expect(getByRole('link', { name: 'R-2 Bills' }).getAttribute('href')).toBe('/p/basis/R-2');
  expect(getByRole('link', { name: 'Q-1 How much?' }).getAttribute('href')).toBe('/p/questions/Q-1');
  expect(getByRole('img', { name: '3 shown, 1 gap' })).toBeTruthy();
  expect(getByText('and 3 more')).toBeTruthy();
  expect(asked?.words).toMatch(/0 % of 4 coverage items\. Now: 75 % of 4 coverage items\.$/);
  expect(asked?.curves[0]?.points).toEqual([{ x: 0, y: 0 }, { x: 4, y: 75 }]);
});

test('what one says first stands above it, stays in this browser, and goes into the files', async () => {
  open('/p/report?since=none');
  await sheet();
  fireEvent.change(screen.getByLabelText('What you say first'), { target: { value: 'We can start.\nAlmost.' } });
  expect((await sheet()).getByText(/We can start/)).toBeTruthy();
  for (const name of [/HTML/, /Markdown/]) {
    fireEvent.click(screen.getByRole('button', { name: 'Save as a file' }));
    fireEvent.click(await screen.findByRole('menuitem', { name }));
  }
  expect(saved.map(([name]) => name)).toEqual(['p report.html', 'p report.md']);
  const [page = '', text = ''] = await Promise.all(saved.map(([, blob]) => textOf(blob)));
  expect(page).toMatch(/^<!doctype html>[^]*We can start\.\nAlmost\./);
  expect(text).toMatch(/^# Design coverage of Fonte Clara\n[^]*We can start/);
  cleanup();
  open('/p/report?since=none');
  expect((await sheet()).getByText(/We can start/)).toBeTruthy();
});

test('days that are not counted yet are counted while it is open; where that fails it says so, and what is known stays', async () => {
  let left = 2;
  answers = { ...answers, readReport: () => ({ ...REPORT, trend: { ...REPORT.trend, left } }), countTrend: () => ({ left: (left = 0) }) };
  open('/p/report?since=none');
  expect((await sheet()).getByText('2 days of the past are not counted yet.')).toBeTruthy();
  await waitFor(() => expect(screen.queryByText(/not counted yet\.$/)).toBeNull());
  cleanup();
  left = 1;
  answers = { ...answers, countTrend: () => { throw new Refusing({ code: 'computation_too_heavy' }); } };
  open('/p/report?since=none');
  await screen.findByText(/could not be counted/);
  expect((await sheet()).getByText('1 day of the past is not counted yet.')).toBeTruthy();
});

test('of the past there is none: it says where one finds it', async () => {
  const server = standInProject([], [], answers);
  onThePage(<ReportPage />, { project: 'p@B-1', isPast: true }, '/p@B-1/report');
  expect(await screen.findByText('The report is of now')).toBeTruthy();
  expect(server.calls('readReport')).toEqual([]);
});

test('where it cannot be read, it says why', async () => {
  answers = { ...answers, readReport: () => { throw new Refusing({ code: 'computation_too_heavy' }); } };
  open();
  expect(await screen.findByText(/takes more time or memory/)).toBeTruthy();
  expect(screen.queryByRole('article')).toBeNull();
});
