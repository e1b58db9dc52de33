import { Worker } from 'node:worker_threads';
import { Refused } from '../refused.ts';
import type { ImportAnswer, ImportJob, ImportTold } from './importJob.ts';

/** What one file may take. Beyond it the thread is ended, and with it all it had begun. */
const MEMORY = { maxOldGenerationSizeMb: 400, maxYoungGenerationSizeMb: 64 };
const MOST_SECONDS = 120;
/** Threads at a time; the next file waits. */
const MOST_AT_ONCE = 2;

/** Reads and imports files in threads of their own, so that no file can hold up or bring down the server. */
export class Importer {
  readonly #databaseUrl: string;
  readonly #running = new Set<Worker>();
  readonly #queue: (() => void)[] = [];
  #atWork = 0;
  #closed = false;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
  }

  /** @throws Refused when the job is refused, or takes more than one file is given. */
  async ask<J extends ImportJob>(job: J): Promise<ImportAnswer[J['kind']]> {
    if (this.#atWork >= MOST_AT_ONCE) await new Promise<void>((resolve) => this.#queue.push(resolve));
    this.#atWork += 1;
    try {
      const told = await this.#do(job);
      if (told.ok) return told.answer as ImportAnswer[J['kind']];
      if ('refusal' in told) throw new Refused(told.refusal);
      throw told.error;
    } finally {
      this.#atWork -= 1;
      this.#queue.shift()?.();
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    await Promise.all([...this.#running].map((worker) => worker.terminate()));
  }

  #do(job: ImportJob): Promise<ImportTold> {
    const worker = new Worker(new URL('./importer.worker.mjs', import.meta.url), { workerData: { databaseUrl: this.#databaseUrl, job }, resourceLimits: MEMORY });
    this.#running.add(worker);
    return new Promise<ImportTold>((resolve) => {
      const tooHeavy: ImportTold = { ok: false, refusal: { code: this.#closed ? 'database_unavailable' : 'import_too_heavy' } };
      const timer = setTimeout(() => void worker.terminate(), MOST_SECONDS * 1_000);
      worker.on('message', (told: ImportTold) => resolve(told));
      worker.on('error', (error) => resolve('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? tooHeavy : { ok: false, error }));
      worker.on('exit', () => {
        clearTimeout(timer);
        this.#running.delete(worker);
        // After a message this changes nothing; without one the thread was ended from outside.
        resolve(tooHeavy);
      });
    });
  }
}
