import { Worker } from 'node:worker_threads';
import type { Answer, AnswerTo, Question } from './question.ts';

export interface Asked {
  readonly id: number;
  readonly projectId: string;
  readonly question: Question;
}
export type Told =
  | { readonly id: number; readonly ok: true; readonly answer: Answer }
  | { readonly id: number; readonly ok: false; readonly error: unknown };

interface Waiting {
  readonly resolve: (answer: Answer) => void;
  readonly reject: (error: unknown) => void;
}

// An index is millions of small objects that stay: with a small young generation each would be copied over and over.
const YOUNG_GENERATION = { maxYoungGenerationSizeMb: 192 };

/** Answers questions on coverage from a thread of its own, so that requests are served meanwhile. */
export class CoverageKeeper {
  readonly #databaseUrl: string;
  readonly #waiting = new Map<number, Waiting>();
  #worker: Worker | null = null;
  #last = 0;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
    // Started before the first question, which would otherwise wait for it.
    this.#start();
  }

  ask<Q extends Question>(projectId: string, question: Q): Promise<AnswerTo[Q['kind']]> {
    const asked: Asked = { id: (this.#last += 1), projectId, question };
    return new Promise<Answer>((resolve, reject) => {
      this.#waiting.set(asked.id, { resolve, reject });
      this.#start().postMessage(asked);
    }) as Promise<AnswerTo[Q['kind']]>;
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  /** A worker that died is replaced at the next question; those it owed an answer are told. */
  #start(): Worker {
    if (this.#worker !== null) return this.#worker;
    const worker = new Worker(new URL('./keeper.worker.mjs', import.meta.url), { workerData: this.#databaseUrl, resourceLimits: YOUNG_GENERATION });
    worker.on('message', (told: Told) => {
      const waiting = this.#waiting.get(told.id);
      this.#waiting.delete(told.id);
      if (told.ok) waiting?.resolve(told.answer);
      else waiting?.reject(told.error);
    });
    worker.on('error', (error) => this.#fail(error));
    worker.on('exit', (code) => this.#fail(new Error(`The coverage worker ended with ${code}`)));
    this.#worker = worker;
    return worker;
  }

  #fail(error: unknown): void {
    this.#worker = null;
    for (const waiting of this.#waiting.values()) waiting.reject(error);
    this.#waiting.clear();
  }
}
