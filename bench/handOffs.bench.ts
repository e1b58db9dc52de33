import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId } from '@caderno/core/cases';
import { EMPTY_SUITE, entryId } from '@caderno/core/suites';
import type { HandOffListed, HandOffPreview } from '@caderno/contract';
import { report, timed, type Figure } from './measure.ts';
import { spawnServer, startServer, type StartedServer } from './startedServer.ts';

const CASES = 1_000;
const ROWS = 100;
const STEPS = 5;
const PEOPLE = 4;
const KEY = 'handed';

/** A hand-off of 100 000 instances looked through, made and written, through a server as it is started. */
async function handOffFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await startServer(databaseUrl);
  try {
    await server.makeProject(KEY);
    await fill(server);
    const part = { of: { suite: 'U-1' }, configurations: [] };
    let [preview, made]: [HandOffPreview | null, HandOffListed | null] = [null, null];
    const looked = await timed(async () => (preview = (await server.post(`/projects/${KEY}/hand-offs/preview`, part)) as HandOffPreview));
    const people = Array.from({ length: PEOPLE }, (_, i) => `Tester ${i + 1}`);
    const handed = await timed(async () => (made = (await server.post(`/projects/${KEY}/hand-offs`, { ...part, name: 'All of it', note: '', due: null, leftOut: [], people, dividing: 'evenly', chosen: [] })) as HandOffListed));
    if ((preview as HandOffPreview | null)?.members.length !== CASES || (made as HandOffListed | null)?.instances !== CASES * ROWS) throw new Error(`All is handed off: expected ${CASES * ROWS} instances`);
    const before = await server.mostMemory();
    await server.stop();
    // What writing takes is measured on a server that did nothing else yet: the memory that importing the cases took is kept for a while.
    const again = await spawnServer(databaseUrl);
    const from = { origin: again.origin, cookie: server.cookie };
    const csv = await save(from, 'format=csv', CASES * ROWS * STEPS);
    const json = await save(from, 'format=json', CASES * ROWS);
    const memory = await again.mostMemory();
    const sheets = await save(from, 'format=xlsx', 0);
    const most = await again.mostMemory();
    await again.stop();
    return [
      { what: `${CASES} cases with ${CASES * ROWS} instances looked through for doubts`, ms: looked, budget: 10_000 },
      { what: 'the same handed off', ms: handed, budget: 20_000 },
      { what: 'written as CSV, after the moment of its baseline was made', ms: csv, budget: 15_000 },
      { what: 'written as JSON', ms: json, budget: 15_000 },
      { what: `written as workbooks of together ${CASES * ROWS * STEPS} rows`, ms: sheets, budget: 60_000 },
      { what: 'most memory of the server that took in the cases and handed them off', ms: before, budget: 500, unit: 'MB' },
      { what: 'most memory of the server that wrote them as CSV and JSON', ms: memory, budget: 500, unit: 'MB' },
      { what: 'and as workbooks', ms: most, budget: 500, unit: 'MB' },
    ];
  } catch (error) {
    await server.stop();
    throw error;
  }
}

async function fill(server: StartedServer): Promise<void> {
  const reading = { id: parameterId('p'), name: 'reading', type: 'text' as const, default: '', description: '' };
  const steps = Array.from({ length: STEPS }, (_, s) => plainStep(stepId(`s${s}`), `Enter <reading> for the meter and confirm part ${s + 1}`, s % 2 === 0 ? 'The ledger shows <reading>' : ''));
  for (let from = 0; from < CASES; from += 250) {
    const made = Array.from({ length: 250 }, (_, i) => ({ kind: 'case' as const, content: { ...EMPTY_CASE, title: `Reading ${from + i + 1}`, module: `Module ${i % 20}`, estimate: 2, parameters: [reading], steps, rows: Array.from({ length: ROWS }, (_row, r) => ({ ...newRow(rowId(`r${r}`), `row ${r}`), cells: { p: String(from * ROWS + r) } })) } }));
    await server.post(`/projects/${KEY}/artefacts/write`, { made, changed: [], detail: 'cases' });
  }
  await server.post(`/projects/${KEY}/artefacts`, { kind: 'suite', content: { ...EMPTY_SUITE, title: 'All of it', entries: [{ kind: 'part', id: entryId('p'), title: 'All', depth: 1, rule: { of: 'cases', asks: 'minutes>0', pinned: null }, runsIn: null }] } });
}

/** Until the last byte is there; `lines`: how many the file has at least. */
async function save(server: Pick<StartedServer, 'origin' | 'cookie'>, query: string, lines: number): Promise<number> {
  let bytes = new Uint8Array();
  const ms = await timed(async () => {
    const response = await fetch(`${server.origin}/api/v1/projects/${KEY}/hand-offs/1/file?${query}`, { headers: { cookie: server.cookie } });
    if (!response.ok) throw new Error(`${query} answered ${response.status}: ${await response.text()}`);
    bytes = new Uint8Array(await response.arrayBuffer());
  });
  const found = bytes.reduce((count, byte) => count + (byte === 10 ? 1 : 0), 0);
  if (found < lines) throw new Error(`A file holds everything: expected ${lines} lines, got ${found}`);
  return ms;
}

process.exitCode = report(await handOffFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
