import { randomUUID } from 'node:crypto';
import { chromium } from '@playwright/test';
import { FIRST_PRIORITIES } from '@caderno/core/artefacts';
import { API_ROOT, aroundHeads, findableOf, unpackHeads, unpackRows, type CoverageSince, type ResponseOf, type Summary } from '@caderno/contract';
import { caseRow, instancesOf, reportOfRows, type CoverageRow } from '@caderno/core/coverage';
import { matchesQuery, parseQuery } from '@caderno/core/find';
import { grouped, sorted, type Listed } from '@caderno/core/listing';
// @ts-expect-error The build scripts run before anything is installed and have no types.
import { buildWeb } from '../scripts/build.mjs';
import { fillLarge } from './fillLarge.ts';
import { frameTime, timeToOpen } from './frames.ts';
import { p95, report, timed, type Figure } from './measure.ts';
import { spawnServer, type SpawnedServer } from './startedServer.ts';

const RUNS = 40;
const MANY = 5_000;
const QUERIES = ['state:draft', 'module:m priority:high', 'steps>3 or minutes>5', '-(tag:smoke has:covers) updated<30d', 'R-12', 'is:showing -owner:nobody'];

/** Its first rows are drawn. */
const FIRST_ROWS = "[...document.querySelectorAll('main [role=row]')].some((row) => /\\bC-\\d/.test(row.textContent))";

/** Lists of a project of 20 000 cases, on a server as it is started: found, grouped and sorted in the browser, opened and scrolled there, found in the database, changed together. */
async function listFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await spawnServer(databaseUrl, { CADERNO_WEB: String(await buildWeb()) });
  try {
    const ask = asking(server, token);
    const known = await read(ask);
    return [...(await inBrowser(known)), ...(await onThePage(server, token)), ...(await inDatabase(ask)), await changing(ask, known)];
  } finally {
    await server.stop();
  }
}

type Ask = (method: string, path: string, body?: object) => Promise<unknown>;

function asking(server: SpawnedServer, token: string): Ask {
  return async (method, path, body) => {
    const response = await fetch(`${server.origin}${API_ROOT}/projects/large${path}`, {
      method,
      headers: { cookie: `caderno_session=${token}`, 'content-type': 'application/json', 'command-id': randomUUID() },
      body: body === undefined ? null : JSON.stringify(body),
    });
    if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
    return response.json();
  };
}

/** The table of all cases, opened from that of conditions, and scrolled. */
async function onThePage(server: SpawnedServer, token: string): Promise<Figure[]> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.context().addCookies([{ name: 'caderno_session', value: token, url: server.origin }]);
    await page.goto(`${server.origin}/large/list/condition`);
    // Until all is known of the project, its coverage as well.
    await page.getByRole('link', { name: /Cases.*20,000 · [0-9]/ }).waitFor({ timeout: 120_000 });
    const kind = page.getByRole('navigation', { name: 'Kinds' });
    const open = async (): Promise<number> => {
      await page.waitForTimeout(2_000);
      return timeToOpen(page, () => kind.getByRole('link', { name: 'cases' }).click(), FIRST_ROWS);
    };
    const cold = await open();
    await kind.getByRole('link', { name: 'conditions' }).click();
    const warm = await open();
    await page.mouse.move(640, 600);
    const scrolled = await frameTime(page, 0.5, async () => {
      for (let i = 0; i < 60; i += 1) {
        await page.mouse.wheel(0, 700);
        await page.waitForTimeout(10);
      }
    });
    return [
      { what: 'the table of all cases opened, the first time', ms: cold, budget: 300 },
      { what: 'that table opened again', ms: warm, budget: 300 },
      { what: 'between two frames while it is scrolled, median', ms: scrolled, budget: 17 },
    ];
  } finally {
    await browser.close();
  }
}

interface Known {
  readonly heads: ReadonlyMap<Summary['id'], Summary>;
  readonly rows: ReadonlyMap<string, CoverageRow>;
}

async function read(ask: Ask): Promise<Known> {
  const heads: Summary[] = [];
  for (let after: string | null = ''; after !== null; ) {
    const page = (await ask('GET', `/heads${after === '' ? '' : `?after=${after}`}`)) as ResponseOf<'readHeads'>;
    heads.push(...unpackHeads(page.heads));
    after = page.next;
  }
  const covered = (await ask('GET', '/coverage/rows')) as CoverageSince;
  return { heads: new Map(heads.map((head) => [head.id, head])), rows: new Map(unpackRows(covered.rows).map((row) => [row.id, row])) };
}

async function inBrowser({ heads, rows }: Known): Promise<Figure[]> {
  const of = <K extends Summary['kind']>(kind: K) => [...heads.values()].filter((h): h is Extract<Summary, { kind: K }> => h.kind === kind);
  const counts = new Map(reportOfRows({ requirements: of('requirement'), conditions: of('condition'), cases: of('case') }, rows).requirements.map((r) => [r.id, r.counts]));
  const around = aroundHeads({ heads, rows, requirements: () => counts });
  const listed = (): Listed[] => of('case').map((head) => findableOf(head, around, { title: head.title, head, instances: instancesOf(head, caseRow(rows, head.id)) }));
  const all = listed();
  const asking = { name: 'Rui M.', now: Date.now() };
  const filtered = (text: string): Listed[] => {
    const query = parseQuery(text, []);
    return all.filter((l) => matchesQuery(query, l, () => new Set(), asking));
  };
  return [
    { what: `what a list shows of ${all.length} cases, the first time`, ms: await p95(10, listed), budget: 200 },
    { what: 'a query over them', ms: await p95(RUNS, (run) => filtered(QUERIES[run % QUERIES.length] ?? '')), budget: 150 },
    { what: 'sorting them by title', ms: await p95(10, () => sorted(all, { column: 'title', descending: false }, { fields: [], modules: [], priorities: FIRST_PRIORITIES })), budget: 150 },
    { what: 'grouping them by requirement', ms: await p95(RUNS, () => grouped(all, 'requirement', asking.now, { fields: [], modules: [], priorities: FIRST_PRIORITIES })), budget: 150 },
  ];
}

async function inDatabase(ask: Ask): Promise<Figure[]> {
  const ms = await p95(RUNS, (run) => ask('GET', `/artefacts?kind=case&query=${encodeURIComponent(`${QUERIES[run % QUERIES.length]} id:C-77`)}`));
  const words = await p95(RUNS, (run) => ask('GET', `/artefacts/words?kind=case&words=reading+${run}`));
  return [{ what: 'a query answered by the database', ms, budget: 150 }, { what: 'words looked for in all contents', ms: words, budget: 150 }];
}

async function changing(ask: Ask, { heads }: Known): Promise<Figure> {
  const ids = [...heads.values()].flatMap((head) => (head.kind === 'case' ? [head.id] : [])).slice(0, MANY);
  const ms = await timed(() => ask('POST', '/artefacts/many', { of: { ids }, done: { kind: 'edit', edit: { kind: 'tag', tag: 'bench', belongs: true } }, detail: 'tagged' }));
  return { what: `${MANY} cases changed by one command`, ms, budget: 5_000 };
}

if (process.argv[1]?.endsWith('lists.bench.ts')) process.exitCode = report(await listFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
