import { Piscina } from 'piscina';
import { DomainError } from '../domainError.ts';
import { isTooHeavy } from '../tooHeavy.ts';
import type { FilesPlace } from '../files/index.ts';
import type { ImportAnswer, ImportJob, ImportReply } from './importJob.ts';

/** What a thread is told when it starts. */
export interface ImporterGiven {
  readonly databaseUrl: string;
  readonly filesPlace: FilesPlace;
}

/** What one file may take. Beyond it the thread is ended, and with it all it had begun. */
const MEMORY = { maxOldGenerationSizeMb: 320, maxYoungGenerationSizeMb: 48 };
/** An import writes into the database as well as it reads. */
const MOST_MS: Record<ImportJob['kind'], number> = { keep: 45_000, describe: 45_000, preview: 45_000, run: 120_000, checkStories: 45_000, exportBasis: 120_000, keepCases: 45_000, describeCases: 45_000, previewCases: 45_000, exportCases: 120_000, keepDesign: 45_000, keepFeatures: 45_000, exportFeatures: 60_000, rememberFeatures: 60_000, alongDesign: 45_000, exportDesign: 60_000, exportFolder: 120_000, makeProject: 300_000, previewHandOff: 45_000, makeHandOff: 60_000, writeHandOff: 120_000, readReturned: 60_000 };
/** Threads at a time; the next file waits. */
const MOST_AT_ONCE = 2;
/** A thread nobody needs for so long is ended: it gives its memory back. */
const IDLE_MS = 60_000;

interface Waiting {
  readonly whose: string;
  readonly begin: () => void;
}

/** Reads, imports and writes files in threads of their own, so that no file can hold up or bring down the server. */
export class Importer {
  readonly #given: ImporterGiven;
  readonly #queue: Waiting[] = [];
  /** Whose jobs are at work. */
  readonly #atWork: string[] = [];
  #pool: Piscina<ImportJob, ImportReply> | null = null;
  #closed = false;

  constructor(given: ImporterGiven) {
    this.#given = given;
  }

  /** `whose`: who waits for it; nobody's files keep all threads while others wait. @throws {DomainError} when the job is refused, or takes more than one file is given. */
  async ask<J extends ImportJob>(job: J, whose: string): Promise<ImportAnswer[J['kind']]> {
    await this.#turn(whose);
    try {
      const reply = await this.#do(job);
      if (reply.ok) return reply.answer as ImportAnswer[J['kind']];
      throw new DomainError(reply.refusal);
    } finally {
      this.#atWork.splice(this.#atWork.indexOf(whose), 1);
      this.#next();
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    await this.#pool?.destroy();
  }

  #turn(whose: string): Promise<void> {
    return new Promise((resolve) => {
      this.#queue.push({ whose, begin: resolve });
      this.#next();
    });
  }

  /** Begins what waits longest of those who have nothing at work; else of anybody, as long as one thread is left for others. */
  #next(): void {
    if (this.#atWork.length >= MOST_AT_ONCE) return;
    const fresh = this.#queue.findIndex((w) => !this.#atWork.includes(w.whose));
    const place = fresh >= 0 ? fresh : this.#atWork.length < MOST_AT_ONCE - 1 ? 0 : -1;
    const [next] = place < 0 ? [] : this.#queue.splice(place, 1);
    if (next === undefined) return;
    this.#atWork.push(next.whose);
    next.begin();
  }

  async #do(job: ImportJob): Promise<ImportReply> {
    this.#pool ??= new Piscina<ImportJob, ImportReply>({
      filename: new URL('./importer.worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: MOST_AT_ONCE,
      idleTimeout: IDLE_MS,
      resourceLimits: MEMORY,
      workerData: this.#given,
      // Where the client of a bucket learns who we are.
      env: process.env,
    });
    try {
      return await this.#pool.run(job, { signal: AbortSignal.timeout(MOST_MS[job.kind]) });
    } catch (error) {
      // Ended with the server: another one takes it up.
      if (this.#closed) throw new DomainError({ code: 'database_unavailable' }, { cause: error });
      if (isTooHeavy(error)) throw new DomainError({ code: 'import_too_heavy' }, { cause: error });
      throw error;
    }
  }
}
