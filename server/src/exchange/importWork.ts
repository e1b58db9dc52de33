import { randomUUID } from 'node:crypto';
import { runCasesSchema, runDesignSchema, runFeaturesSchema, runImportSchema } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import type { Actor } from '../artefacts/index.ts';
import { inTransaction, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { JobKind, Jobs } from '../jobs/index.ts';
import type { Importer } from './importer.ts';
import { BEAT_MS, beatRun, beginRun, endRun, takeLostRuns, type RunEnd } from './importRun.ts';
import type { CasesOrder, DesignRun, FeaturesRun } from './importJob.ts';
import type { ImportOrder } from './run.ts';

/** The queue of imports. */
export const IMPORTS = 'imports';

const actorSchema: z.ZodType<Actor> = z.object({ projectId: z.string(), personId: z.string(), at: z.coerce.date(), commandId: z.string().nullable() });
const importDataSchema = z.object({ file: z.string(), actor: actorSchema, order: z.union([runCasesSchema.extend({ into: z.literal('case') }), runDesignSchema.extend({ into: z.literal('design') }), runFeaturesSchema.extend({ into: z.literal('feature') }), runImportSchema]) });
type ImportData = z.infer<typeof importDataSchema>;

interface ImportParts {
  readonly db: Sequelize;
  readonly importer: Importer;
  /** Told what went wrong besides what a person can do something about. */
  readonly onError: (error: unknown) => void;
}

/** Sends an import on its way in the transaction that takes the file for it. @throws {DomainError} when another one of the file is under way. */
export async function sendImport(work: UnitOfWork, jobs: Jobs, actor: Actor, file: string, order: ImportOrder | CasesOrder | DesignRun | FeaturesRun): Promise<void> {
  const job = randomUUID();
  if (!(await beginRun(work, actor.projectId, file, job, actor.commandId))) return;
  await jobs.send<ImportData>(work, IMPORTS, job, { file, actor, order: importDataSchema.shape.order.parse(order) });
}

/** Imports a file as a job: whichever server is free does it, and it is begun again when that server is lost. A run is all or nothing, and done once by its command. */
export function importKind({ db, importer, onError }: ImportParts): JobKind<ImportData> {
  const run = async ({ file, actor, order }: ImportData, job: string): Promise<void> => {
    if (!(await inTransaction(db, (work) => beatRun(work, file, job)))) return;
    const beat = setInterval(() => void inTransaction(db, (work) => beatRun(work, file, job)).catch(onError), BEAT_MS);
    try {
      const end = await runOnce(importer, { file, actor, order }, job);
      await inTransaction(db, (work) => endRun(work, file, job, end));
    } catch (error) {
      onError(error);
      throw error;
    } finally {
      clearInterval(beat);
    }
  };
  return { name: IMPORTS, data: importDataSchema, atOnce: 2, mostSeconds: 150, retries: 2, run };
}

/** @throws what is no answer for a person: the job is then begun again. */
async function runOnce(importer: Importer, { file, actor, order }: ImportData, job: string): Promise<RunEnd> {
  try {
    await importer.ask({ kind: 'run', job, actor, file, order }, actor.personId);
    return { kind: 'done' };
  } catch (error) {
    if (error instanceof DomainError && error.refusal.code !== 'database_unavailable') return { kind: 'refused', refusal: error.refusal };
    throw error;
  }
}

/** Has imports begun again whose server has fallen silent; those that were begun often enough end. Any number of servers may do so at once. */
export async function superviseImports(db: Sequelize, jobs: Jobs): Promise<void> {
  const lost = await inTransaction(db, takeLostRuns);
  for (const { id, job } of lost) {
    if (await jobs.lost(IMPORTS, job)) continue;
    await inTransaction(db, (work) => endRun(work, id, job, { kind: 'refused', refusal: { code: 'import_lost' } }));
  }
}
