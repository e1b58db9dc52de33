import { Worker } from 'node:worker_threads';
import { DomainError } from '../domainError.ts';
import { isTooHeavy } from '../tooHeavy.ts';
import type { Answer, AnswerTo, Question } from './question.ts';

export interface ThreadRequest {
  readonly projectId: string;
  readonly question: Question;
}
/** What the thread says first: it has read its code, and time begins to count. */
export const READY = 'ready';

export type ThreadReply = { readonly ok: true; readonly answer: Answer } | { readonly ok: false; readonly error: unknown };

interface Waiting extends ThreadRequest {
  readonly resolve: (answer: Answer) => void;
  readonly reject: (error: unknown) => void;
}

// An index is millions of small objects that stay: with a small young generation each would be copied over and over.
const MEMORY = { maxYoungGenerationSizeMb: 128, maxOldGenerationSizeMb: 640 };

/** Questions that may wait for one thread. */
const LONGEST_LINE = 300;

/** A thread that answers one question after the other, and is ended when one takes too long or too much. */
export class ProjectThread {
  readonly #worker: Worker;
  readonly #mostMs: number;
  readonly #line: Waiting[] = [];
  #current: Waiting | null = null;
  #timer: NodeJS.Timeout | null = null;
  #ready = false;
  askedAt = performance.now();
  ended = false;

  /** `mostMs`: what one question may take, the first one of a large project included. */
  constructor(databaseUrl: string, mostMs: number) {
    this.#mostMs = mostMs;
    this.#worker = new Worker(new URL('./keeper.worker.mjs', import.meta.url), { workerData: databaseUrl, resourceLimits: MEMORY });
    this.#worker.on('message', (reply: ThreadReply | typeof READY) => (reply === READY ? this.#begin() : this.#reply(reply)));
    this.#worker.on('error', (error) => this.#fail(isTooHeavy(error) ? tooHeavy() : error));
    this.#worker.on('exit', (code) => this.#fail(new Error(`The coverage thread ended with ${code}`)));
  }

  get busy(): boolean {
    return this.#current !== null || this.#line.length > 0;
  }

  ask<Q extends Question>(projectId: string, question: Q): Promise<AnswerTo[Q['kind']]> {
    this.askedAt = performance.now();
    if (this.#line.length >= LONGEST_LINE) throw new DomainError({ code: 'too_much_at_once', seconds: 5 });
    return new Promise<Answer>((resolve, reject) => {
      this.#line.push({ projectId, question, resolve, reject });
      this.#next();
    }) as Promise<AnswerTo[Q['kind']]>;
  }

  async end(): Promise<void> {
    this.#fail(new DomainError({ code: 'database_unavailable' }));
    await this.#worker.terminate();
  }

  #next(): void {
    if (this.#current !== null) return;
    const next = this.#line.shift();
    if (next === undefined) return;
    this.#current = next;
    if (this.#ready) this.#watchTime();
    this.#worker.postMessage({ projectId: next.projectId, question: next.question } satisfies ThreadRequest);
  }

  #begin(): void {
    this.#ready = true;
    if (this.#current !== null) this.#watchTime();
  }

  #watchTime(): void {
    this.#timer = setTimeout(() => {
      this.#fail(tooHeavy());
      void this.#worker.terminate();
    }, this.#mostMs);
  }

  #reply(reply: ThreadReply): void {
    const waiting = this.#current;
    this.#settle();
    if (reply.ok) waiting?.resolve(reply.answer);
    else waiting?.reject(reply.error);
    this.#next();
  }

  #settle(): void {
    if (this.#timer !== null) clearTimeout(this.#timer);
    this.#timer = null;
    this.#current = null;
  }

  /** All who wait are told; nobody may ask this thread again. */
  #fail(error: unknown): void {
    if (this.ended) return;
    this.ended = true;
    const all = [...(this.#current === null ? [] : [this.#current]), ...this.#line.splice(0)];
    this.#settle();
    for (const waiting of all) waiting.reject(error);
  }
}

function tooHeavy(): DomainError {
  return new DomainError({ code: 'computation_too_heavy' });
}
