import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import type { NewArtefact } from '@caderno/contract';
import type { Design } from '@caderno/core/coverage';
import { createBenchServer, type BenchServer } from '@caderno/server/bench';
import pg from 'pg';
import { LARGE, largeDesign } from './largeProject.ts';

const STORED = 'large';

/**
 * Puts the large project, as `large`, into an empty database that nothing is connected to; answers the session of whoever may change it.
 * It is stored through the services once a run, which takes minutes; every database after that is a copy.
 */
export async function fillLarge(databaseUrl: string): Promise<string> {
  const server = new URL(databaseUrl);
  const name = server.pathname.slice(1);
  await onServer(databaseUrl, async (sql) => {
    const { rowCount } = await sql.query('SELECT FROM pg_database WHERE datname = $1', [STORED]);
    if (rowCount === 0) await storeLarge(sql, server);
    await sql.query(`DROP DATABASE "${name}"`);
    await sql.query(`CREATE DATABASE "${name}" TEMPLATE ${STORED}`);
  });
  return withBenchServer(databaseUrl, ({ signIn }) => signIn(STORED));
}

/** It has its name once it is whole. */
async function storeLarge(sql: pg.Client, server: URL): Promise<void> {
  console.log(`Storing ${LARGE.requirements + LARGE.conditions + LARGE.cases} artefacts through the services …`);
  const filling = `${STORED}_filling`;
  await sql.query(`DROP DATABASE IF EXISTS ${filling}`);
  await sql.query(`CREATE DATABASE ${filling}`);
  await withBenchServer(new URL(filling, server).href, ({ fill }) => fill(STORED, artefactsOf(largeDesign(4711))));
  await sql.query(`ALTER DATABASE ${filling} RENAME TO ${STORED}`);
}

/** Databases are made and taken away from that which every server has. */
async function onServer<T>(databaseUrl: string, action: (sql: pg.Client) => Promise<T>): Promise<T> {
  const sql = new pg.Client({ connectionString: new URL('postgres', databaseUrl).href });
  await sql.connect();
  try {
    return await action(sql);
  } finally {
    await sql.end();
  }
}

async function withBenchServer<T>(databaseUrl: string, action: (server: BenchServer) => Promise<T>): Promise<T> {
  const server = await createBenchServer(databaseUrl);
  try {
    return await action(server);
  } finally {
    await server.close();
  }
}

/** The artefacts of a design, in an order in which links lead backwards. */
export function artefactsOf(design: Design): NewArtefact[] {
  return [
    ...design.requirements.map((r) => ({ kind: 'requirement' as const, content: { ...EMPTY_REQUIREMENT, title: r.title, text: 'A text.', module: r.module, risk: r.risk } })),
    ...design.conditions.map((c) => ({ kind: 'condition' as const, content: c.content })),
    ...design.cases.map((c) => ({ kind: 'case' as const, content: c.content })),
  ];
}
