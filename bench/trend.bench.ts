import { API_ROOT, type Operation, type ResponseOf } from '@caderno/contract';
import { createBenchServer } from '@caderno/server/bench';
import pg from 'pg';
import { artefactsOf, fillLarge } from './fillLarge.ts';
import { largeDesign } from './largeProject.ts';
import { p95, report, timed, type Figure } from './measure.ts';

const DAYS = 730;
const CHANGES = 100_000;
/** Requirements of the project of two years, each with its conditions and cases. */
const SMALL = { requirements: 60, conditions: 90, cases: 150 };

/** Coverage over two years of a project that changed very often, and one day of the large project. */
export async function trendFigures(databaseUrl: string): Promise<Figure[]> {
  const token = await fillLarge(databaseUrl);
  const server = await createBenchServer(databaseUrl);
  const sql = new pg.Client({ connectionString: databaseUrl });
  await sql.connect();
  try {
    await sql.query('SET search_path TO caderno');
    const caller = (project: string, session: string) => async <N extends Operation>(method: 'GET' | 'POST', path = ''): Promise<ResponseOf<N>> => {
      const response = await server.fetch(`${API_ROOT}/projects/${project}/coverage/trend${path}`, { method, headers: { cookie: `caderno_session=${session}`, 'content-type': 'application/json' }, body: method === 'GET' ? null : '{}' });
      if (!response.ok) throw new Error(`${path} answered ${response.status}: ${await response.text()}`);
      return (await response.json()) as ResponseOf<N>;
    };
    const reportOf = async (): Promise<number> => {
      const headers = { cookie: `caderno_session=${token}`, 'content-type': 'application/json' };
      const taken = await server.fetch(`${API_ROOT}/projects/large/baselines`, { method: 'POST', headers, body: JSON.stringify({ name: 'Then', note: '', of: { everything: true } }) });
      const read = (): Promise<Response> => server.fetch(`${API_ROOT}/projects/large/coverage/report?since=1`, { headers });
      const [status, first] = [taken.status, (await read()).status];
      if (status !== 200 || first !== 200) throw new Error(`The report is read against a baseline: the one answered ${first}, the other ${status}`);
      return p95(10, read);
    };
    const years = await server.fill('years', smallProject());
    const ask = caller('years', years.token);
    await spread(sql, 'years');
    let left = 0;
    const counting = await timed(async () => (left = (await ask<'countTrend'>('POST')).left));
    const { days } = await ask<'readTrend'>('GET');
    await fillDays(sql, 'years');
    const read = await p95(10, () => ask('GET'));
    const { points } = await ask<'readTrend'>('GET');
    if (points.length < DAYS - 1) throw new Error(`Every day is counted: expected ${DAYS - 1} at least, got ${points.length}`);
    const bends = await p95(10, () => ask('GET', `/${points[400]?.revision ?? 0}`));
    console.log(`the curve read: ${read.toFixed(0)} ms, what made it bend: ${bends.toFixed(0)} ms, a day counted: ${(counting / (days - left)).toFixed(0)} ms of ${days - left}`);
    await sql.query(`UPDATE change SET at = at - interval '2 days' WHERE project_id = (SELECT id FROM project WHERE key = 'large')`);
    const oneDay = await timed(() => caller('large', token)('POST'));
    const told = await reportOf();
    return [
      { what: 'the report of the large project, against a baseline of everything', ms: told, budget: 2_000 },
      { what: `two years and ${CHANGES} changes: the curve read`, ms: read, budget: 1_000 },
      { what: 'what made it bend on a day', ms: bends, budget: 300 },
      { what: `a day of a project of ${SMALL.requirements + SMALL.conditions + SMALL.cases} counted, the last and the first first`, ms: counting / (days - left), budget: 500 },
      { what: 'a day of the large project counted, beside everything else', ms: oneDay, budget: 60_000 },
    ];
  } finally {
    await sql.end();
    await server.close();
  }
}

function smallProject() {
  const large = largeDesign(4711);
  const [requirements, conditions] = [large.requirements.slice(0, SMALL.requirements), large.conditions.filter((c) => c.content.requirements.every((r) => Number(r.id.slice(2)) <= SMALL.requirements)).slice(0, SMALL.conditions)];
  const known = new Set(conditions.map((c) => c.id));
  return artefactsOf({ ...large, requirements, conditions, cases: large.cases.slice(0, SMALL.cases).map((c) => ({ ...c, content: { ...c.content, covers: c.content.covers.filter((cover) => known.has(cover.id)) } })) });
}

/** As many entries of the journal, over as many days: each says that a case, in turn, was saved in a version that says what it said before. */
async function spread(sql: pg.Client, key: string): Promise<void> {
  await sql.query(`UPDATE change SET at = now() - interval '${DAYS + 1} days' WHERE project_id = (SELECT id FROM project WHERE key = $1)`, [key]);
  await sql.query(
    `WITH p AS (SELECT id, revision FROM project WHERE key = $1), author AS (SELECT author_id AS id FROM change WHERE project_id = (SELECT id FROM p) LIMIT 1)
     INSERT INTO change (id, project_id, revision, action, author_id, at, detail, note, size)
     SELECT gen_random_uuid(), p.id, p.revision + n, 'save', author.id, now() - interval '${DAYS} days' + n * interval '${DAYS} days' / ${CHANGES}, '', '', 1 FROM p, author, generate_series(1, ${CHANGES}) n`,
    [key],
  );
  await sql.query(`UPDATE project SET revision = revision + ${CHANGES} WHERE key = $1`, [key]);
  await sql.query(
    `WITH cases AS (SELECT array_agg(a.id ORDER BY a.number) AS ids FROM artefact a JOIN project p ON p.id = a.project_id WHERE p.key = $1 AND a.kind = 'case')
     INSERT INTO change_part (change_id, place, artefact_id, from_version, to_version, undo)
     SELECT c.id, 0, cases.ids[1 + c.revision % array_length(cases.ids, 1)], NULL, NULL, '{"kind": "imported", "from": null, "to": null}' FROM cases, change c JOIN project p ON p.id = c.project_id WHERE p.key = $1 AND c.action = 'save'`,
    [key],
  );
  await sql.query('ANALYZE');
}

/** The days that are not counted yet come to what the last one came to: reading them is measured, not counting. */
async function fillDays(sql: pg.Client, key: string): Promise<void> {
  await sql.query(
    `INSERT INTO trend_point (project_id, revision, computation, figures, requirements)
     SELECT c.project_id, max(c.revision), t.computation, t.figures, t.requirements
     FROM change c JOIN project p ON p.id = c.project_id CROSS JOIN LATERAL (SELECT * FROM trend_point WHERE project_id = p.id ORDER BY revision DESC LIMIT 1) t
     WHERE p.key = $1 GROUP BY c.project_id, (c.at AT TIME ZONE 'UTC')::date, t.computation, t.figures, t.requirements ON CONFLICT DO NOTHING`,
    [key],
  );
}

if (process.argv[1]?.endsWith('trend.bench.ts')) process.exitCode = report(await trendFigures(process.env.CADERNO_TEST_DATABASE ?? '')) ? 0 : 1;
