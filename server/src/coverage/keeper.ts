import type { Sequelize } from 'sequelize';
import { DomainError } from '../domainError.ts';
import { CoverageThread, EndedByAnother } from './coverageThread.ts';
import { OwnThreads } from './ownThread.ts';
import type { AnswerTo, Question } from './question.ts';

/** Projects with a thread of their own at a time; the one asked longest ago gives its thread up. */
const MOST_OWN = 3;

/** A thread that nobody asks for so long is ended: it gives its memory back. */
const IDLE_MS = 10 * 60_000;

/** What a question may take, and for how long the project's questions are refused after one that took more: the next would take as much. */
export interface QuestionLimits {
  readonly mostMs: number;
  readonly restMs: number;
}

const LIMITS: QuestionLimits = { mostMs: 20_000, restMs: 20_000 };

/**
 * Answers questions on coverage beside the serving thread. Small projects share a thread, which keeps their indexes; large
 * and slow ones have one each, so that they hold up nobody else. A thread that takes too much on a question is ended.
 */
export class CoverageKeeper {
  readonly #databaseUrl: string;
  readonly #limits: QuestionLimits;
  readonly #ownThreads: OwnThreads;
  /** The one asked longest ago first. */
  readonly #own = new Map<string, CoverageThread>();
  readonly #line: (() => void)[] = [];
  readonly #restUntil = new Map<string, number>();
  readonly #sweep: NodeJS.Timeout;
  #shared: CoverageThread;

  constructor(databaseUrl: string, db: Sequelize, limits = LIMITS) {
    this.#databaseUrl = databaseUrl;
    this.#limits = limits;
    this.#ownThreads = new OwnThreads(db);
    // Started before the first question, which would otherwise wait for it.
    this.#shared = this.#newThread();
    this.#sweep = setInterval(() => this.#endIdle(), IDLE_MS / 10).unref();
  }

  /** @throws {DomainError} when it takes more time or memory than one question is given. */
  async ask<Q extends Question>(projectId: string, question: Q): Promise<AnswerTo[Q['kind']]> {
    for (;;) {
      if ((this.#restUntil.get(projectId) ?? 0) > performance.now()) throw tooHeavy();
      const isApart = await this.#ownThreads.needed(projectId);
      // Found and asked without a pause in between: until it is asked it looks idle, and another project might take its place.
      const thread = isApart ? this.#ownThread(projectId) : this.#sharedThread();
      if (thread === null) {
        await new Promise<void>((resolve) => this.#line.push(resolve));
        continue;
      }
      try {
        return await thread.ask(projectId, question);
      } catch (error) {
        if (error instanceof EndedByAnother) continue;
        if (error instanceof DomainError && error.refusal.code === 'computation_too_heavy') this.#tookTooMuch(projectId);
        throw error;
      } finally {
        for (const goOn of this.#line.splice(0)) goOn();
      }
    }
  }

  /** Reads everything of a project again at the next question. */
  forget(projectId: string): void {
    for (const thread of [this.#shared, this.#own.get(projectId)]) if (thread?.ended === false) thread.forget(projectId);
  }

  async close(): Promise<void> {
    clearInterval(this.#sweep);
    await Promise.all([this.#shared, ...this.#own.values()].map((thread) => thread.end()));
  }

  #newThread(): CoverageThread {
    return new CoverageThread(this.#databaseUrl, this.#limits.mostMs, (projectId, ms) => this.#ownThreads.took(projectId, ms));
  }

  #sharedThread(): CoverageThread {
    if (this.#shared.ended) this.#shared = this.#newThread();
    return this.#shared;
  }

  /** The project's thread: its own, a new one, or in the place of one that is idle, of whoever asked longest ago; null while all are busy. */
  #ownThread(projectId: string): CoverageThread | null {
    // A thread may have died while nobody asked it.
    for (const [id, thread] of this.#own) if (thread.ended) this.#own.delete(id);
    const own = this.#own.get(projectId);
    if (own === undefined && this.#own.size >= MOST_OWN) {
      const idle = [...this.#own].find(([, thread]) => !thread.busy);
      if (idle === undefined) return null;
      this.#end(...idle);
    }
    const thread = own ?? this.#newThread();
    // Whoever asks last is the last to go.
    this.#own.delete(projectId);
    this.#own.set(projectId, thread);
    return thread;
  }

  /** Refused for a while, and then asked in a thread of its own. */
  #tookTooMuch(projectId: string): void {
    this.#restUntil.set(projectId, performance.now() + this.#limits.restMs);
    this.#ownThreads.took(projectId, this.#limits.mostMs);
  }

  #end(projectId: string, thread: CoverageThread): void {
    this.#own.delete(projectId);
    void thread.end();
  }

  #endIdle(): void {
    const isIdle = (thread: CoverageThread): boolean => !thread.busy && performance.now() - thread.askedAt > IDLE_MS;
    for (const [projectId, thread] of this.#own) if (isIdle(thread)) this.#end(projectId, thread);
    if (!this.#shared.ended && isIdle(this.#shared)) void this.#shared.end();
    for (const [projectId, until] of this.#restUntil) if (until < performance.now()) this.#restUntil.delete(projectId);
  }
}

function tooHeavy(): DomainError {
  return new DomainError({ code: 'computation_too_heavy' });
}
