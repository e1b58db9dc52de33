import { randomUUID } from 'node:crypto';
import type { NewArtefact } from '@caderno/contract';
import { createArtefact } from './artefacts/index.ts';
import { CoverageKeeper } from './coverage/index.ts';
import { Importer } from './exchange/index.ts';
import { inTransaction, migrate, openDatabase } from './database/index.ts';
import { ChangeFeed, createApp, createLog } from './http/index.ts';
import { createDemoPerson, startSession } from './people/index.ts';
import { createProject } from './projects/index.ts';

/** A server that measurements call without a network, and a way to fill it. */
export interface BenchServer {
  fetch(path: string, init?: RequestInit): Promise<Response>;
  /** Makes a project of artefacts through the same service as a person’s edits; links must lead backwards. */
  fill(key: string, artefacts: readonly NewArtefact[]): Promise<{ readonly token: string }>;
  close(): Promise<void>;
}

const IN_ONE_TRANSACTION = 500;

/** Starts a server on an empty database. */
export async function createBenchServer(databaseUrl: string): Promise<BenchServer> {
  const db = openDatabase(databaseUrl);
  await migrate(db);
  const log = createLog('error');
  const coverage = new CoverageKeeper(databaseUrl);
  const importer = new Importer(databaseUrl);
  const feed = new ChangeFeed(databaseUrl, log);
  const app = createApp({ db, coverage, importer, feed, log, webFolder: null, now: () => new Date() });
  return {
    fetch: async (path, init) => app.fetch(new Request(`http://caderno.test${path}`, init)),
    fill: async (key, artefacts) => {
      const { personId, projectId, token } = await inTransaction(db, async (work) => {
        const person = await createDemoPerson(work, { name: 'Bench', email: `${key}@bench.example`, job: 'bench', administrator: true });
        const project = await createProject(work, person, { key, name: key });
        return { personId: person, projectId: project.id, token: await startSession(work, person) };
      });
      for (let at = 0; at < artefacts.length; at += IN_ONE_TRANSACTION) {
        await inTransaction(db, async (work) => {
          for (const made of artefacts.slice(at, at + IN_ONE_TRANSACTION)) {
            await createArtefact(work, { projectId, personId, at: new Date(), commandId: randomUUID() }, made);
          }
        });
      }
      await db.query('ANALYZE');
      return { token };
    },
    close: async () => {
      await coverage.close();
      await importer.close();
      await db.close();
    },
  };
}
