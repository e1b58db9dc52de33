import { randomUUID } from 'node:crypto';
import { EMPTY_CASE } from '@caderno/core/cases';
import { API_ROOT, type NewArtefact, type ResponseOf } from '@caderno/contract';
import { createBenchServer } from '@caderno/server/bench';
import pg from 'pg';
import { p95, report, timed, type Figure } from './measure.ts';

const ENTRIES = 100_000;
const FOLLOWERS = 10_000;

/** An inbox of very many entries, and a case that very many people follow. */
export async function inboxFigures(databaseUrl: string): Promise<Figure[]> {
  const server = await createBenchServer(databaseUrl);
  const sql = new pg.Client({ connectionString: databaseUrl });
  await sql.connect();
  try {
    const cases = Array.from({ length: 200 }, (_, i): NewArtefact => ({ kind: 'case', content: { ...EMPTY_CASE, title: `Case ${i}` } }));
    const { token } = await server.fill('inbox', cases);
    const ask = async (method: string, path: string, body?: object, headers: Readonly<Record<string, string>> = {}): Promise<unknown> => {
      const response = await server.fetch(`${API_ROOT}/projects/inbox${path}`, { method, headers: { cookie: `caderno_session=${token}`, 'content-type': 'application/json', 'command-id': randomUUID(), ...headers }, body: body === undefined ? null : JSON.stringify(body) });
      if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
      return response.json();
    };
    await sql.query('SET search_path TO caderno');
    await sql.query(`INSERT INTO person (id, name, email, administrator) SELECT gen_random_uuid(), 'Follower ' || n, 'f' || n || '@bench.example', false FROM generate_series(1, ${FOLLOWERS}) n`);
    await sql.query(`INSERT INTO member (project_id, person_id, role) SELECT p.id, f.id, 'reader' FROM project p, person f WHERE p.key = 'inbox' AND f.name LIKE 'Follower %'`);
    await sql.query(`INSERT INTO follow (person_id, artefact_id, follows) SELECT f.id, a.id, true FROM person f, artefact a WHERE f.name LIKE 'Follower %' AND a.number = 1`);
    await sql.query(`INSERT INTO inbox_entry (project_id, person_id, reason, by_id, at, artefact_id, from_version, to_version, read_at, kept)
      SELECT p.id, m.person_id, 'changed', m.person_id, now() - n * interval '1 minute', a.id, 1, 2, CASE WHEN n % 3 > 0 OR n > 600 THEN now() END, n % 50 = 0
      FROM generate_series(1, ${ENTRIES}) n, project p JOIN member m ON m.project_id = p.id AND m.role = 'administrator' JOIN artefact a ON a.project_id = p.id WHERE p.key = 'inbox' AND a.number = 1 + n % 200`);
    await sql.query('ANALYZE');
    const page = (query: string) => p95(20, () => ask('GET', `/inbox?part=${query}`));
    const { entries } = (await ask('GET', '/inbox?part=all')) as ResponseOf<'readInbox'>;
    const figures = [await page('unread'), await page('kept'), await page(`all&before=${entries.at(-1)?.id ?? 1}`), await page('all&reason=suspect'), await p95(20, () => ask('GET', '/inbox/count'))];
    const save = (i: number) => ask('PUT', '/artefacts/C-1', { kind: 'case', content: { ...EMPTY_CASE, title: `Another ${i}` }, note: '' }, { 'if-match': `"${i}"` });
    const saved = await timed(() => save(1));
    const delivered = await timed(() => ask('GET', '/inbox/count'));
    await save(2);
    const again = await timed(() => ask('GET', '/inbox/count'));
    const [told] = (await sql.query(`SELECT count(*)::int AS count FROM inbox_entry e JOIN person p ON p.id = e.person_id WHERE p.name LIKE 'Follower %'`)).rows as { count: number }[];
    if (told?.count !== FOLLOWERS) throw new Error(`Everybody who follows is told: expected ${FOLLOWERS}, got ${told?.count}`);
    return [
      ...['not read', 'kept', 'all, the second page', 'of one reason'].map((what, i) => ({ what: `an inbox of ${ENTRIES}: ${what}`, ms: figures[i] ?? Number.NaN, budget: 100 })),
      { what: 'how many are not read', ms: figures[4] ?? Number.NaN, budget: 100 },
      { what: `a case saved that ${FOLLOWERS} follow`, ms: saved, budget: 100 },
      { what: 'they are told', ms: delivered, budget: 2_000 },
      { what: 'they are told again before they have read', ms: again, budget: 2_000 },
    ];
  } finally {
    await sql.end();
    await server.close();
  }
}

if (process.argv[1]?.endsWith('inbox.bench.ts')) process.exitCode = report(await inboxFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
