import { Piscina } from 'piscina';
import type { Refusal } from '@caderno/contract';
import type { MailPlace } from '../mail/index.ts';
import { DomainError } from '../domainError.ts';
import { isTooHeavy } from '../tooHeavy.ts';
import type { DemoSignIn } from '../people/index.ts';
import type { OperationRequest } from './request.ts';

/** What a thread is told when it starts. */
export interface LaneGiven {
  readonly databaseUrl: string;
  readonly key: Uint8Array;
  readonly demoSignIn: DemoSignIn;
  readonly mail: MailPlace | null;
}

/** A request, and the time it is carried out at. */
export interface LaneJob {
  readonly request: OperationRequest;
  readonly at: Date;
}

/** JSON as it is sent, as bytes: they change hands without being copied. */
export type LaneReply = { readonly ok: true; readonly bytes: Uint8Array<ArrayBuffer> } | { readonly ok: false; readonly refusal: Refusal };

/** Two threads: the machine has hardly more, and everybody else is served meanwhile. */
const THREADS = 2;
const LONGEST_LINE = 40;
const MOST_MS = 120_000;
const IDLE_MS = 60_000;
const MEMORY = { maxOldGenerationSizeMb: 1_024, maxYoungGenerationSizeMb: 64 };

/** Commands and readings of large contents, each carried out whole in a thread: parsing, checking, hashing and merging them holds nobody up. */
export class HeavyLane {
  readonly #given: LaneGiven;
  #pool: Piscina<LaneJob, LaneReply> | null = null;

  constructor(given: LaneGiven) {
    this.#given = given;
  }

  /** @throws {DomainError} what the operation refuses, or that it takes more than one may. */
  async carryOut(job: LaneJob): Promise<Uint8Array<ArrayBuffer>> {
    const reply = await this.#run(job);
    if (reply.ok) return reply.bytes;
    throw new DomainError(reply.refusal);
  }

  async #run(job: LaneJob): Promise<LaneReply> {
    this.#pool ??= new Piscina<LaneJob, LaneReply>({
      filename: new URL('./heavyLane.worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: THREADS,
      maxQueue: LONGEST_LINE,
      idleTimeout: IDLE_MS,
      resourceLimits: MEMORY,
      workerData: this.#given,
    });
    if (this.#pool.queueSize >= LONGEST_LINE) throw new DomainError({ code: 'too_much_at_once', seconds: 5 });
    try {
      return await this.#pool.run(job, { signal: AbortSignal.timeout(MOST_MS) });
    } catch (error) {
      if (isTooHeavy(error)) throw new DomainError({ code: 'computation_too_heavy' }, { cause: error });
      throw error;
    }
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
  }
}
