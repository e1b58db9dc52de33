import { randomUUID } from 'node:crypto';
import { API_ROOT, type Content } from '@caderno/contract';
import { createBenchServer, type BenchServer } from '@caderno/server/bench';
import { fillLarge } from './fillLarge.ts';
import { p95, report, timed, type Figure } from './measure.ts';

const TOKEN_HEADERS = (token: string): Record<string, string> => ({ cookie: `caderno_session=${token}`, 'content-type': 'application/json' });

/** Commands, lists and coverage of the large project through the server's own routes, on a real PostgreSQL. */
export async function serverFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await createBenchServer(databaseUrl);
  try {
    return await measure(server, token);
  } finally {
    await server.close();
  }
}

async function measure(server: BenchServer, token: string): Promise<Figure[]> {
  const get = async (path: string): Promise<unknown> => {
    const response = await server.fetch(`${API_ROOT}/projects/large${path}`, { headers: TOKEN_HEADERS(token) });
    if (!response.ok) throw new Error(`${path} answered ${response.status}`);
    return response.json();
  };
  const save = async (n: number): Promise<void> => {
    const artefact = (await get(`/artefacts/C-${n}`)) as { content: Content & { objective: string }; summary: { version: number } };
    const body = { kind: 'case', content: { ...artefact.content, objective: randomUUID() }, note: '' };
    latest = { n, body, version: artefact.summary.version };
  };
  let latest = { n: 0, body: {}, version: 0 };
  const put = async (): Promise<void> => {
    const headers = { ...TOKEN_HEADERS(token), 'if-match': `"${latest.version}"` };
    const response = await server.fetch(`${API_ROOT}/projects/large/artefacts/C-${latest.n}`, { method: 'PUT', headers, body: JSON.stringify(latest.body) });
    if (!response.ok) throw new Error(`A save answered ${response.status}: ${await response.text()}`);
  };
  const commands: number[] = [];
  for (let i = 1; i <= 100; i += 1) {
    await save(i * 7);
    commands.push(await timed(put));
  }
  commands.sort((a, b) => a - b);
  const first = await timed(() => get('/coverage'));
  const afterEdit: number[] = [];
  for (let i = 1; i <= 20; i += 1) {
    await save(i * 11);
    await put();
    afterEdit.push(await timed(() => get('/coverage/items?standing=gap&limit=6')));
  }
  afterEdit.sort((a, b) => a - b);
  return [
    { what: 'a save of a case, p95', ms: commands[94] ?? 0, budget: 100 },
    { what: 'first coverage of the large project, read from the database', ms: first, budget: 10_000 },
    { what: 'coverage after one edit, over the API, p95', ms: afterEdit[18] ?? 0, budget: 100 },
    { what: 'the whole coverage report over the API, p95', ms: await p95(10, () => get('/coverage')), budget: 400 },
    { what: 'finding words, p95', ms: await p95(40, (i) => get(`/find?words=case+${i + 100}`)), budget: 150 },
    { what: 'a filtered list of cases (module), p95', ms: await p95(20, (i) => get(`/artefacts?kind=case&query=module:%22Module+${(i % 19) + 2}%22`)), budget: 150 },
    { what: 'the list of all 20 000 cases, p95', ms: await p95(5, () => get('/artefacts?kind=case')), budget: 1_500 },
    { what: 'opening a case, p95', ms: await p95(40, (i) => get(`/artefacts/C-${i + 1}`)), budget: 50 },
  ];
}

if (process.argv[1]?.endsWith('server.bench.ts')) process.exitCode = report(await serverFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
