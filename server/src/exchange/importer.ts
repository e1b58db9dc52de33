import { Worker } from 'node:worker_threads';
import { Refused } from '../refused.ts';
import type { ImportAnswer, ImportJob, ImportTold } from './importJob.ts';

/** What one file may take. Beyond it the thread is ended, and with it all it had begun. */
const MEMORY = { maxOldGenerationSizeMb: 400, maxYoungGenerationSizeMb: 64 };
const MOST_MS = 120_000;
/** Threads at a time; the next file waits. */
const MOST_AT_ONCE = 2;
/** A thread nobody needs for so long is ended: it gives its memory back. */
const IDLE_MS = 60_000;

interface Idle {
  readonly worker: Worker;
  readonly timer: NodeJS.Timeout;
}

/** Reads and imports files in threads of their own, so that no file can hold up or bring down the server. */
export class Importer {
  readonly #databaseUrl: string;
  readonly #all = new Set<Worker>();
  readonly #idle: Idle[] = [];
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
    for (const { timer } of this.#idle) clearTimeout(timer);
    await Promise.all([...this.#all].map((worker) => worker.terminate()));
  }

  #do(job: ImportJob): Promise<ImportTold> {
    const worker = this.#take();
    const tooHeavy: ImportTold = { ok: false, refusal: { code: 'import_too_heavy' } };
    return new Promise<ImportTold>((resolve) => {
      const timer = setTimeout(() => void worker.terminate(), MOST_MS);
      const end = (told: ImportTold, reusable: boolean): void => {
        clearTimeout(timer);
        worker.off('message', onMessage);
        worker.off('error', onError);
        worker.off('exit', onExit);
        if (reusable) this.#rest(worker);
        else this.#all.delete(worker);
        resolve(told);
      };
      const onMessage = (told: ImportTold): void => end(told, true);
      const onError = (error: Error): void => end('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? tooHeavy : { ok: false, error }, false);
      // Ended from outside, by the clock or with the server.
      const onExit = (): void => end(this.#closed ? { ok: false, refusal: { code: 'database_unavailable' } } : tooHeavy, false);
      worker.on('message', onMessage);
      worker.on('error', onError);
      worker.on('exit', onExit);
      worker.postMessage(job);
    });
  }

  #take(): Worker {
    const idle = this.#idle.pop();
    if (idle !== undefined) {
      clearTimeout(idle.timer);
      return idle.worker;
    }
    const worker = new Worker(new URL('./importer.worker.mjs', import.meta.url), { workerData: this.#databaseUrl, resourceLimits: MEMORY });
    this.#all.add(worker);
    // A thread that dies while nobody waits for it is no longer offered; whoever waits is told by its job.
    for (const event of ['error', 'exit'] as const) worker.on(event, () => this.#forget(worker));
    return worker;
  }

  #rest(worker: Worker): void {
    const timer = setTimeout(() => {
      this.#forget(worker);
      void worker.terminate();
    }, IDLE_MS);
    this.#idle.push({ worker, timer: timer.unref() });
  }

  #forget(worker: Worker): void {
    this.#all.delete(worker);
    const place = this.#idle.findIndex((idle) => idle.worker === worker);
    if (place >= 0) this.#idle.splice(place, 1);
  }
}
