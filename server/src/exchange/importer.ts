import { Worker } from 'node:worker_threads';
import { DomainError } from '../domainError.ts';
import type { ImportAnswer, ImportJob, ImportReply } from './importJob.ts';

/** What one file may take. Beyond it the thread is ended, and with it all it had begun. */
const MEMORY = { maxOldGenerationSizeMb: 320, maxYoungGenerationSizeMb: 48 };
/** An import writes into the database as well as it reads. */
const MOST_MS: Record<ImportJob['kind'], number> = { keep: 45_000, describe: 45_000, preview: 45_000, run: 120_000, checkStories: 45_000, exportBasis: 60_000 };
/** Threads at a time; the next file waits. */
const MOST_AT_ONCE = 2;
/** A thread nobody needs for so long is ended: it gives its memory back. */
const IDLE_MS = 60_000;

interface Idle {
  readonly worker: Worker;
  readonly timer: NodeJS.Timeout;
}

interface Waiting {
  readonly whose: string;
  readonly begin: () => void;
}

/** Reads, imports and writes files in threads of their own, so that no file can hold up or bring down the server. */
export class Importer {
  readonly #databaseUrl: string;
  readonly #all = new Set<Worker>();
  readonly #idle: Idle[] = [];
  readonly #queue: Waiting[] = [];
  /** Whose jobs are at work. */
  readonly #atWork: string[] = [];
  #closed = false;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
  }

  /** `whose`: who waits for it; nobody's files keep all threads while others wait. @throws {DomainError} when the job is refused, or takes more than one file is given. */
  async ask<J extends ImportJob>(job: J, whose: string): Promise<ImportAnswer[J['kind']]> {
    await this.#turn(whose);
    try {
      const reply = await this.#do(job);
      if (reply.ok) return reply.answer as ImportAnswer[J['kind']];
      if ('refusal' in reply) throw new DomainError(reply.refusal);
      throw reply.error;
    } finally {
      this.#atWork.splice(this.#atWork.indexOf(whose), 1);
      this.#next();
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    for (const { timer } of this.#idle) clearTimeout(timer);
    await Promise.all([...this.#all].map((worker) => worker.terminate()));
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

  #do(job: ImportJob): Promise<ImportReply> {
    const worker = this.#take();
    const tooHeavy: ImportReply = { ok: false, refusal: { code: 'import_too_heavy' } };
    return new Promise<ImportReply>((resolve) => {
      const timer = setTimeout(() => void worker.terminate(), MOST_MS[job.kind]);
      const end = (reply: ImportReply, reusable: boolean): void => {
        clearTimeout(timer);
        worker.off('message', onMessage);
        worker.off('error', onError);
        worker.off('exit', onExit);
        if (reusable) this.#rest(worker);
        else this.#all.delete(worker);
        resolve(reply);
      };
      const onMessage = (reply: ImportReply): void => end(reply, true);
      const onError = (error: Error): void => end(isTooHeavy(error) ? tooHeavy : { ok: false, error }, false);
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
    // A thread that dies while nobody waits for it is no longer offered; whoever waits is reply by its job.
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

/** Out of memory or of stack: what was asked for is too much for one file. */
function isTooHeavy(error: Error): boolean {
  return ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY') || (error instanceof RangeError && /call stack/.test(error.message));
}
