import { Piscina } from 'piscina';
import { DomainError } from '../domainError.ts';
import { isTooHeavy } from '../tooHeavy.ts';
import type { TrendCount } from './trendCount.ts';

/** A whole project is in memory while a day is counted. */
const MEMORY = { maxOldGenerationSizeMb: 640, maxYoungGenerationSizeMb: 128 };
/** What one call may take: one day of a large project. */
const MOST_MS = 120_000;
/** Counting goes on in calls of about so long, so that a page can say how far it is, and other projects have their turn. */
const ONE_CALL_MS = 4_000;
/** A thread nobody needs for so long is ended: it gives its memory back. */
const IDLE_MS = 30_000;

/** Counts the past in a thread of its own, one project after the other: nobody waits for it but who looks at the curve. */
export class TrendCounter {
  readonly #databaseUrl: string;
  readonly #atWork = new Map<string, Promise<{ readonly left: number }>>();
  #pool: Piscina<TrendCount, { readonly left: number }> | null = null;
  #closed = false;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
  }

  /** Counts for some seconds; whoever asks meanwhile for the same project hears the same. @throws {DomainError} when a day takes too much. */
  count(projectId: string, now: Date): Promise<{ readonly left: number }> {
    const atWork = this.#atWork.get(projectId);
    if (atWork !== undefined) return atWork;
    const counting = this.#run({ projectId, now, mostMs: ONE_CALL_MS }).finally(() => this.#atWork.delete(projectId));
    this.#atWork.set(projectId, counting);
    return counting;
  }

  async close(): Promise<void> {
    this.#closed = true;
    await this.#pool?.destroy();
  }

  async #run(order: TrendCount): Promise<{ readonly left: number }> {
    this.#pool ??= new Piscina({
      filename: new URL('./trend.worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: IDLE_MS,
      resourceLimits: MEMORY,
      workerData: this.#databaseUrl,
    });
    try {
      return await this.#pool.run(order, { signal: AbortSignal.timeout(MOST_MS) });
    } catch (error) {
      if (this.#closed) throw new DomainError({ code: 'database_unavailable' }, { cause: error });
      if (isTooHeavy(error)) throw new DomainError({ code: 'computation_too_heavy' }, { cause: error });
      throw error;
    }
  }
}
