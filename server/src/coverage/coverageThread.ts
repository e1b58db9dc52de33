import { Worker } from 'node:worker_threads';
import { DomainError } from '../domainError.ts';
import { isTooHeavy } from '../tooHeavy.ts';
import type { Answer, AnswerTo, Question } from './question.ts';

/** `forget`: that the project is read anew at the next question; nothing is answered. */
export interface ThreadRequest {
  readonly projectId: string;
  readonly question: Question | 'forget';
}
/** What the thread says first: it has read its code, and time begins to count. */
export const READY = 'ready';

export type ThreadReply = { readonly ok: true; readonly answer: Answer } | { readonly ok: false; readonly error: unknown };

/** The thread was ended by somebody else's question: this one may be asked again. */
export class EndedByAnother extends Error {}

interface Waiting {
  readonly projectId: string;
  readonly question: Question;
  readonly resolve: (answer: Answer) => void;
  readonly reject: (error: unknown) => void;
}

// An index is millions of small objects that stay: with a small young generation each would be copied over and over.
const MEMORY = { maxYoungGenerationSizeMb: 128, maxOldGenerationSizeMb: 640 };

/** Questions that may wait for one thread. */
const LONGEST_LINE = 300;

/** A thread that answers one question after the other, and is ended when one takes too long or too much. */
export class CoverageThread {
  readonly #worker: Worker;
  readonly #mostMs: number;
  readonly #onAnswered: (projectId: string, ms: number) => void;
  readonly #line: Waiting[] = [];
  #current: Waiting | null = null;
  #timer: NodeJS.Timeout | null = null;
  #begunAt = 0;
  #ready = false;
  askedAt = performance.now();
  ended = false;

  /** `mostMs`: what one question may take, the first one of a large project included. `onAnswered` hears how long each took. */
  constructor(databaseUrl: string, mostMs: number, onAnswered: (projectId: string, ms: number) => void) {
    this.#mostMs = mostMs;
    this.#onAnswered = onAnswered;
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

  forget(projectId: string): void {
    this.#worker.postMessage({ projectId, question: 'forget' } satisfies ThreadRequest);
  }

  async end(): Promise<void> {
    const stopping = new DomainError({ code: 'database_unavailable' });
    this.#fail(stopping, stopping);
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
    this.#begunAt = performance.now();
    this.#timer = setTimeout(() => {
      this.#fail(tooHeavy());
      void this.#worker.terminate();
    }, this.#mostMs);
  }

  #reply(reply: ThreadReply): void {
    const waiting = this.#current;
    this.#settle();
    if (waiting !== null) this.#onAnswered(waiting.projectId, performance.now() - this.#begunAt);
    if (reply.ok) waiting?.resolve(reply.answer);
    else waiting?.reject(reply.error);
    this.#next();
  }

  #settle(): void {
    if (this.#timer !== null) clearTimeout(this.#timer);
    this.#timer = null;
    this.#current = null;
  }

  /** Whoever was being answered hears why, those behind that they may ask another thread; nobody may ask this one again. */
  #fail(error: unknown, toTheRest: Error = new EndedByAnother()): void {
    if (this.ended) return;
    this.ended = true;
    const [current, behind] = [this.#current, this.#line.splice(0)];
    this.#settle();
    current?.reject(error);
    for (const waiting of behind) waiting.reject(toTheRest);
  }
}

function tooHeavy(): DomainError {
  return new DomainError({ code: 'computation_too_heavy' });
}
