import { randomUUID } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import { API_ROOT, EVENTS_PATH, unpackHeads, unpackRows, type Artefact, type CoverageSince, type ResponseOf, type Summary } from '@caderno/contract';
import { reportOfRows, type CoverageRow } from '@caderno/core/coverage';
import { createBenchServer, type BenchServer } from '@caderno/server/bench';
import { fillLarge } from './fillLarge.ts';
import { report, timed, type Figure } from './measure.ts';

const PAGES = 100;
const SAVES = 20;

/** What an open page costs: to fill it, to open a case in it, and to tell it what somebody else saved. */
export async function logFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await createBenchServer(databaseUrl);
  try {
    const asked = asking(server, token);
    await asked('/coverage/rows');
    return [...(await filling(asked)), ...(await opening(asked)), ...(await telling(server, token))];
  } finally {
    await server.close();
  }
}

type Asking = (path: string) => Promise<{ readonly value: unknown; readonly bytes: number; readonly packed: number }>;

/** Asks as a browser on the network does: the answer comes packed. */
function asking(server: BenchServer, token: string): Asking {
  return async (path) => {
    const response = await server.fetch(`${API_ROOT}/projects/large${path}`, { headers: { cookie: `caderno_session=${token}`, 'accept-encoding': 'gzip' } });
    if (!response.ok) throw new Error(`${path} answered ${response.status}`);
    const body = Buffer.from(await response.arrayBuffer());
    const text = response.headers.get('content-encoding') === 'gzip' ? gunzipSync(body) : body;
    return { value: JSON.parse(text.toString()), bytes: text.length, packed: body.length };
  };
}

async function filling(asked: Asking): Promise<Figure[]> {
  let packed = 0;
  const heads: Summary[] = [];
  let rows: ReadonlyMap<string, CoverageRow> = new Map();
  const ms = await timed(async () => {
    for (let after: string | null = ''; after !== null; ) {
      const page = await asked(`/heads${after === '' ? '' : `?after=${after}`}`);
      const { heads: tables, next } = page.value as ResponseOf<'readHeads'>;
      packed += page.packed;
      heads.push(...unpackHeads(tables));
      after = next;
    }
    const covered = await asked('/coverage/rows');
    packed += covered.packed;
    rows = new Map(unpackRows((covered.value as CoverageSince).rows).map((row) => [row.id, row]));
  });
  const of = <K extends Summary['kind']>(kind: K) => heads.filter((h): h is Extract<Summary, { kind: K }> => h.kind === kind);
  const known = { requirements: of('requirement'), conditions: of('condition'), cases: of('case') };
  const first = await timed(() => reportOfRows(known, rows));
  const again = await timed(() => reportOfRows(known, rows));
  return [
    { what: `first load of ${heads.length} heads and ${rows.size} coverage rows`, ms, budget: 3_000 },
    { what: 'first load, packed', ms: packed / 1_000, budget: 400, unit: 'kB' },
    { what: 'the report of heads and rows, the first time', ms: first, budget: 200 },
    { what: 'the report of heads and rows, after a change', ms: again, budget: 50 },
  ];
}

async function opening(asked: Asking): Promise<Figure[]> {
  let bytes = 0;
  const ms = await timed(async () => {
    for (const path of ['/artefacts/C-77', '/design?case=C-77']) bytes += (await asked(path)).bytes;
  });
  return [{ what: 'opening a case: its content and the design around it', ms, budget: 150 }, { what: 'opening a case, bytes', ms: bytes / 1_000, budget: 100, unit: 'kB' }];
}

/** A page that is open on the project, and what it was told. */
interface Listener {
  bytes: number;
  events: number;
  stop(): Promise<void>;
}

async function listen(server: BenchServer, token: string): Promise<Listener> {
  const response = await server.fetch(API_ROOT + EVENTS_PATH.replace(':project', 'large'), { headers: { cookie: `caderno_session=${token}` } });
  if (response.body === null || !response.ok) throw new Error(`The stream answered ${response.status}`);
  const reader = response.body.getReader();
  const listener: Listener = { bytes: 0, events: 0, stop: () => reader.cancel() };
  await reader.read();
  const read = async (): Promise<void> => {
    for (let next = await reader.read(); !next.done; next = await reader.read()) {
      listener.bytes += next.value.length;
      listener.events += (Buffer.from(next.value).toString().match(/^event: (changes|coverage)$/gm) ?? []).length;
    }
  };
  void read();
  return listener;
}

async function telling(server: BenchServer, token: string): Promise<Figure[]> {
  const alone = await savesWith(server, token, []);
  const listeners = await Promise.all((await server.people('large', PAGES, 'reader')).map((reader) => listen(server, reader)));
  const heard = await savesWith(server, token, listeners);
  await Promise.all(listeners.map((l) => l.stop()));
  return [
    { what: `another’s save on ${PAGES} open pages: until all are told, worst`, ms: heard.worst, budget: 2_000 },
    { what: 'another’s save, bytes a page', ms: heard.bytes / 1_000, budget: 5, unit: 'kB' },
    { what: 'another’s save, server time a page', ms: Math.max(0, heard.cpu - alone.cpu) / PAGES, budget: 5 },
    { what: 'another’s save, server time of the save with all that follows', ms: heard.cpu, budget: 500 },
  ];
}

/** Saves cases one after the other, each once all pages know of the one before; answers means of a save. */
async function savesWith(server: BenchServer, token: string, listeners: readonly Listener[]): Promise<{ readonly worst: number; readonly bytes: number; readonly cpu: number }> {
  const before = process.cpuUsage();
  let worst = 0;
  for (let i = 0; i < SAVES; i += 1) {
    const [events, began] = [listeners.map((l) => l.events), performance.now()];
    await saveCase(server, token, i * 7 + 1 + (listeners.length === 0 ? 0 : 3));
    // The change, and what coverage makes of it.
    while (listeners.some((l, n) => l.events < (events[n] ?? 0) + 2)) {
      if (performance.now() - began > 10_000) throw new Error('A page was not told of a save within ten seconds');
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
    worst = Math.max(worst, listeners.length === 0 ? 0 : performance.now() - began);
  }
  const { user, system } = process.cpuUsage(before);
  return { worst, bytes: listeners.reduce((sum, l) => sum + l.bytes, 0) / Math.max(1, listeners.length) / SAVES, cpu: (user + system) / 1_000 / SAVES };
}

/** A save that changes what the case shows. */
async function saveCase(server: BenchServer, token: string, n: number): Promise<void> {
  const headers = { cookie: `caderno_session=${token}`, 'content-type': 'application/json' };
  const path = `${API_ROOT}/projects/large/artefacts/C-${n}`;
  const artefact = (await (await server.fetch(path, { headers })).json()) as Artefact & { kind: 'case' };
  const content = { ...artefact.content, objective: randomUUID(), rows: artefact.content.rows.slice(0, -1) };
  const response = await server.fetch(path, { method: 'PUT', headers: { ...headers, 'if-match': `"${artefact.summary.version}"` }, body: JSON.stringify({ kind: 'case', content, note: '' }) });
  if (!response.ok) throw new Error(`A save answered ${response.status}: ${await response.text()}`);
}

if (process.argv[1]?.endsWith('log.bench.ts')) process.exitCode = report(await logFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
