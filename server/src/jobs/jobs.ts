import PgBoss from 'pg-boss';
import type { z } from 'zod';
import { JOBS_SCHEMA, type UnitOfWork } from '../database/index.ts';

/** A kind of long work: whichever server is free does it, and another one again when that one is gone. */
export interface JobKind<D> {
  readonly name: string;
  readonly data: z.ZodType<D>;
  /** How many may be under way on one server. */
  readonly atOnce: number;
  /** After this long the queue itself takes it for lost. */
  readonly mostSeconds: number;
  /** How often it is begun again when a server is lost over it. */
  readonly retries: number;
  readonly run: (data: D, job: string) => Promise<void>;
}

/** A kind that parses what it is sent. */
type KnownKind = Omit<JobKind<unknown>, 'data'>;

/** Seconds after which a server looks whether another one has left it something to do. */
const LOOKS_EVERY = 2;
/** Milliseconds a server that is to end waits for what it has begun; what is not done then goes to another one. */
const PATIENCE_MS = 5_000;
const CONNECTIONS = 2;

/** The queue of long work, in the database. It begins with {@link start}, or with the first job that is sent. */
export class Jobs {
  readonly #boss: PgBoss;
  readonly #kinds = new Map<string, KnownKind>();
  readonly #workers = new Map<string, string[]>();
  #underWay = 0;
  #started: Promise<void> | null = null;

  constructor(databaseUrl: string, onError: (error: Error) => void) {
    this.#boss = new PgBoss({ connectionString: databaseUrl, schema: JOBS_SCHEMA, application_name: 'caderno jobs', max: CONNECTIONS, schedule: false });
    this.#boss.on('error', onError);
  }

  /** Names a kind before the start. */
  define<D>(kind: JobKind<D>): void {
    this.#kinds.set(kind.name, { ...kind, run: (data, job) => kind.run(kind.data.parse(data), job) });
  }

  start(): Promise<void> {
    this.#started ??= this.#begin();
    return this.#started;
  }

  async #begin(): Promise<void> {
    await this.#boss.start();
    for (const { name, atOnce, run } of this.#kinds.values()) {
      await this.#boss.createQueue(name);
      const workers: string[] = [];
      for (let i = 0; i < atOnce; i += 1) {
        workers.push(await this.#boss.work(name, { pollingIntervalSeconds: LOOKS_EVERY }, async ([job]) => {
          if (job !== undefined) await this.#counted(() => run(job.data, job.id));
        }));
      }
      this.#workers.set(name, workers);
    }
  }

  async #counted(work: () => Promise<void>): Promise<void> {
    this.#underWay += 1;
    try {
      await work();
    } finally {
      this.#underWay -= 1;
    }
  }

  /** Jobs this server is at. */
  get underWay(): number {
    return this.#underWay;
  }

  /** Sends a job with what the transaction writes: both are there, or neither. {@link wake} makes this server look at once. */
  async send<D extends object>(work: UnitOfWork, kind: string, job: string, data: D): Promise<void> {
    await this.start();
    const { mostSeconds, retries } = this.#kindOf(kind);
    const db = {
      executeSql: async (sql: string, bind: unknown[]): Promise<{ rows: unknown[] }> => {
        // The queue leaves out what it has no word for, where the database wants to be told that there is none.
        const [rows] = await work.db.query(sql, { bind: bind.map((value) => value ?? null), transaction: work.transaction, raw: true });
        return { rows };
      },
    };
    await this.#boss.send(kind, data, { id: job, db, expireInSeconds: mostSeconds, retryLimit: retries });
  }

  wake(kind: string): void {
    for (const worker of this.#workers.get(kind) ?? []) this.#boss.notifyWorker(worker);
  }

  /** Takes a job for lost with its server. Whether it is to be begun again; false: it was begun often enough, or is not there. */
  async lost(kind: string, job: string): Promise<boolean> {
    await this.start();
    await this.#boss.fail(kind, job);
    const state = (await this.#boss.getJobById(kind, job))?.state;
    if (state === 'created' || state === 'retry') this.wake(kind);
    return state === 'created' || state === 'retry' || state === 'active';
  }

  #kindOf(name: string): KnownKind {
    const kind = this.#kinds.get(name);
    if (kind === undefined) throw new Error(`A job is of a kind that is named at the start: got ${name}`);
    return kind;
  }

  /** Takes nothing more, waits a little for what is under way, and leaves the rest to other servers. */
  async close(): Promise<void> {
    if (this.#started === null) return;
    await this.#started.catch(() => undefined);
    await this.#boss.stop({ graceful: true, wait: true, timeout: PATIENCE_MS });
  }
}
