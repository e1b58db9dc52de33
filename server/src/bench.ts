import { randomUUID } from 'node:crypto';
import type { NewArtefact, Role } from '@caderno/contract';
import { createArtefact } from './artefacts/index.ts';
import { inTransaction, migrate, modelsOf } from './database/index.ts';
import { createApp, createLog, makeParts } from './http/index.ts';
import { createDemoPerson, joinProject, startSession } from './people/index.ts';
import { createProject } from './projects/index.ts';

/** A server that measurements call without a network, and a way to fill it. */
export interface BenchServer {
  fetch(path: string, init?: RequestInit): Promise<Response>;
  /** Makes a project of artefacts through the same service as a person’s edits; links must lead backwards. */
  fill(key: string, artefacts: readonly NewArtefact[]): Promise<{ readonly token: string }>;
  /** A session of whoever filled a project, in the database that it was filled in or in a copy. */
  signIn(key: string): Promise<string>;
  /** Lets people into a project; answers a session of each. */
  people(key: string, count: number, role: Role): Promise<readonly string[]>;
  close(): Promise<void>;
}

const IN_ONE_TRANSACTION = 500;

/** Starts a server on an empty database. */
export async function createBenchServer(databaseUrl: string): Promise<BenchServer> {
  const { parts, close } = makeParts({ databaseUrl, log: createLog('error'), hosts: new Set(['caderno.test']), demoSignIn: 'always' });
  const { db } = parts;
  await migrate(db);
  await parts.feed.start();
  const app = createApp(parts);
  return {
    fetch: async (path, init) => app.fetch(new Request(`http://caderno.test${path}`, init)),
    fill: async (key, artefacts) => {
      const { personId, projectId, token } = await inTransaction(db, async (work) => {
        const person = await createDemoPerson(work, { name: 'Bench', email: emailOf(key), job: 'bench', administrator: true });
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
    signIn: (key) =>
      inTransaction(db, async (work) => {
        const { id } = await modelsOf(db).Person.findOne({ where: { email: emailOf(key) }, transaction: work.transaction, rejectOnEmpty: true });
        return startSession(work, id);
      }),
    people: (key, count, role) =>
      inTransaction(db, async (work) => {
        const project = await modelsOf(db).Project.findOne({ where: { key }, transaction: work.transaction, rejectOnEmpty: true });
        const tokens: string[] = [];
        for (let i = 0; i < count; i += 1) {
          const person = await createDemoPerson(work, { name: `Person ${i}`, email: `${role}${i}@${key}.example`, job: `works ${i}`, administrator: false });
          await joinProject(work, project.id, person, role);
          tokens.push(await startSession(work, person));
        }
        return tokens;
      }),
    close,
  };
}

/** Of whoever fills a project. */
function emailOf(key: string): string {
  return `${key}@bench.example`;
}
