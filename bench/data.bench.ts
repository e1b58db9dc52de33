import { chromium, type Page } from '@playwright/test';
import { DEFAULT_RISK_SCALE, EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { newRow, parameterId, rowId, type Parameter } from '@caderno/core/cases';
import { EMPTY_CONDITION, fieldId, type ConditionContent, type ValueRangesModel } from '@caderno/core/conditions';
import { CoverageIndex, type Design } from '@caderno/core/coverage';
import { EMPTY_DATA_SET, asCase, type DataSetContent } from '@caderno/core/dataSets';
import { GUESS_ALL, guessRowColumns, planRows, readTable } from '@caderno/core/exchange';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { report, timed, type Figure } from './measure.ts';
import { startServer } from './startedServer.ts';

const KEY = 'data';
const ROWS = 10_000;
const COLUMNS = 30;
const IMPORTED = 100_000;

const parameters = Array.from({ length: COLUMNS }, (_, i): Parameter => ({ id: parameterId(`p${i}`), name: `column ${i}`, type: i % 3 === 0 ? 'whole' : 'text', default: '', description: '' }));
const model: ValueRangesModel = {
  kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false,
  fields: [{ id: fieldId('f'), name: 'value', type: { kind: 'whole' }, unit: '', required: true, choices: [], patterns: [], classes: [], intervals: Array.from({ length: 100 }, (_, i) => ({ id: `i${i}`, name: `part ${i}`, from: String(i * 10), to: String(i * 10 + 9), valid: true, outcome: '' })) }],
};
const condition: ConditionContent = { ...EMPTY_CONDITION, title: 'Parts', requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }], model };
const large: DataSetContent = {
  ...EMPTY_DATA_SET,
  title: 'Large',
  parameters,
  rows: Array.from({ length: ROWS }, (_, r) => newRow(rowId(`r${r}`), `row ${r}`, Object.fromEntries(parameters.map((p, i) => [p.id, String((r * 31 + i * 7) % 1000)])))),
  serves: [{ id: 'K-1', seenVersion: 1, fields: [{ id: fieldId('f'), parameter: parameterId('p0') }], outcome: null }],
};

/** What a typed cell does to coverage, and a large file, without any page. */
async function coreFigures(): Promise<Figure[]> {
  const testCase = (content: DataSetContent) => ({ id: 'C-1' as const, state: 'draft' as const, version: 1, content: asCase(content) });
  const design: Design = {
    requirements: [{ id: 'R-1', title: '', module: '', risk: 'medium', state: 'draft', type: 'rule', meaningSince: 1 }],
    conditions: [{ id: 'K-1', state: 'draft', version: 1, meaningSince: 1, content: condition }],
    cases: [testCase(large)], questions: [], library: [], riskWeights: DEFAULT_RISK_SCALE.weights, mostItems: 20_000, constants: [],
  };
  const index = new CoverageIndex(design);
  const edits: number[] = [];
  for (let i = 0; i < 20; i += 1) {
    const rows = large.rows.map((row, at) => (at === 5_000 ? { ...row, cells: { ...row.cells, p0: String(i * 37) } } : row));
    edits.push(await timed(() => (index.apply({ kind: 'case', id: 'C-1', case: testCase({ ...large, rows }) }), index.coverageOf('K-1'))));
  }
  const file = new TextEncoder().encode(`row;column 0;answer;sum\n${Array.from({ length: IMPORTED }, (_, i) => `row ${i};${(i * 7) % 120_000};accepted number ${i % 50};${i % 1000},${String(i % 100).padStart(2, '0')}`).join('\n')}\n`);
  let taken = 0;
  const imported = await timed(async () => {
    const document = await readTable(file, GUESS_ALL);
    let n = 0;
    taken = planRows(document, guessRowColumns(document.columns, parameters), { rows: [], parameters }, 'replace', () => `n${(n += 1)}`).rows.length;
  });
  if (taken !== IMPORTED) throw new Error(`All rows of the file are taken in: expected ${IMPORTED}, got ${taken}`);
  return [
    { what: `coverage after a typed cell, ${ROWS} × ${COLUMNS}, slowest of 20`, ms: Math.max(...edits), budget: 50 },
    { what: `reading and planning ${IMPORTED} rows of a file`, ms: imported, budget: 10_000 },
  ];
}

// As texts: what compiles this file leaves helpers in functions that the page does not have.
const UNTIL_OPEN = `(async () => {
  const link = [...document.querySelectorAll('a')].find((a) => a.pathname.endsWith('/D-1'));
  const began = performance.now();
  link.click();
  while (document.querySelectorAll('[data-cell]').length < 100) await new Promise((r) => requestAnimationFrame(r));
  return performance.now() - began;
})()`;
const SCROLL = `(async () => {
  const grid = document.querySelector('[role=grid]');
  const times = [];
  let last = performance.now();
  for (let i = 0; i < 120; i += 1) {
    grid.scrollTop += 100;
    await new Promise((r) => requestAnimationFrame(r));
    times.push(performance.now() - last);
    last = performance.now();
  }
  return times.sort((a, b) => a - b)[60];
})()`;
const WATCH_KEYS = `
  globalThis.keyTimes = [];
  window.addEventListener('keydown', () => {
    const began = performance.now();
    requestAnimationFrame(() => {
      const channel = new MessageChannel();
      channel.port1.onmessage = () => globalThis.keyTimes.push(performance.now() - began);
      channel.port2.postMessage(0);
    });
  }, true);`;
const PASTE = `(async () => {
  const text = Array.from({ length: 1667 }, (_, r) => Array.from({ length: 30 }, (_, c) => 'v' + r + '.' + c).join('\\t')).join('\\n');
  const data = new DataTransfer();
  data.setData('text/plain', text);
  const began = performance.now();
  document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  while (!document.querySelector('[data-cell="0/1"]')?.textContent.includes('v0.0')) await new Promise((r) => requestAnimationFrame(r));
  return performance.now() - began;
})()`;

/** The grid in the browser: opening, scrolling, typing, pasting. */
async function gridFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl, String(await buildWeb()));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'] });
  try {
    await server.makeProject(KEY);
    await server.post(`/projects/${KEY}/artefacts`, { kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'Any' } });
    await server.post(`/projects/${KEY}/artefacts`, { kind: 'condition', content: condition });
    await server.post(`/projects/${KEY}/artefacts`, { kind: 'dataSet', content: large });
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const [name = '', value = ''] = server.cookie.split('=');
    await page.context().addCookies([{ name, value, url: server.origin }]);
    const open = await opened(page, server.origin);
    await page.waitForTimeout(3_000);
    const scroll = Number(await page.evaluate(SCROLL));
    await page.evaluate(`document.querySelector('[role=grid]').scrollTop = 0`);
    await page.locator('[data-cell="3/2"]').click();
    await page.waitForTimeout(1_000);
    await page.evaluate(WATCH_KEYS);
    for (const key of '12345678901234567890') {
      await page.keyboard.press(key);
      await page.waitForTimeout(120);
    }
    const keys = ((await page.evaluate('globalThis.keyTimes')) as number[]).sort((a, b) => a - b);
    await page.keyboard.press('Escape');
    await page.locator('[data-cell="0/1"]').click();
    const paste = Number(await page.evaluate(PASTE));
    return [
      { what: `opening a data set of ${ROWS} × ${COLUMNS}, best of 3`, ms: open, budget: 500 },
      { what: 'time between frames while it is scrolled, median', ms: scroll, budget: 17 },
      { what: 'a key typed into a cell, until the next frame, median', ms: keys[keys.length >> 1] ?? Infinity, budget: 16 },
      { what: 'pasting 50 010 cells, until they are seen', ms: paste, budget: 2_000 },
    ];
  } finally {
    await browser.close();
    await server.stop();
  }
}

async function opened(page: Page, origin: string): Promise<number> {
  let best = Infinity;
  for (let i = 0; i < 3; i += 1) {
    await page.goto(`${origin}/${KEY}/shared?left=data`);
    await page.getByRole('link', { name: 'Large' }).waitFor();
    await page.waitForTimeout(1_500);
    best = Math.min(best, Number(await page.evaluate(UNTIL_OPEN)));
  }
  return best;
}

const url = process.env.CADERNO_TEST_DATABASE;
if (url === undefined) throw new Error('Run it by npm run bench, which starts PostgreSQL');
process.exitCode = report([...(await coreFigures()), ...(await gridFigures(url))]) ? 0 : 1;
