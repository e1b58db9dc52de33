import { DomainError } from '../domainError.ts';
import { ProjectThread } from './projectThread.ts';
import type { AnswerTo, Question } from './question.ts';

/** Projects with a thread of their own at a time; the one asked longest ago gives its thread up. */
const MOST_THREADS = 4;

/** A thread that nobody asks for so long is ended: it gives its memory back. */
const IDLE_MS = 10 * 60_000;

/** What a question may take, and for how long the project's questions are refused after one that took more: the next would take as much. */
export interface QuestionLimits {
  readonly mostMs: number;
  readonly restMs: number;
}

const LIMITS: QuestionLimits = { mostMs: 20_000, restMs: 20_000 };

/**
 * Answers questions on coverage, each project's in a thread of its own: a heavy one holds up its own project and
 * nobody else, and is ended when it takes too much.
 */
export class CoverageKeeper {
  readonly #databaseUrl: string;
  readonly #limits: QuestionLimits;
  /** The one asked longest ago first. */
  readonly #threads = new Map<string, ProjectThread>();
  readonly #line: (() => void)[] = [];
  readonly #restUntil = new Map<string, number>();
  readonly #sweep: NodeJS.Timeout;
  #spare: ProjectThread | null;

  constructor(databaseUrl: string, limits = LIMITS) {
    this.#databaseUrl = databaseUrl;
    this.#limits = limits;
    // Started before the first question, which would otherwise wait for it.
    this.#spare = new ProjectThread(databaseUrl, limits.mostMs);
    this.#sweep = setInterval(() => this.#endIdle(), IDLE_MS / 10).unref();
  }

  /** @throws {DomainError} when it takes more time or memory than one question is given. */
  async ask<Q extends Question>(projectId: string, question: Q): Promise<AnswerTo[Q['kind']]> {
    if ((this.#restUntil.get(projectId) ?? 0) > performance.now()) throw new DomainError({ code: 'computation_too_heavy' });
    // Found and asked without a pause in between: until it is asked it looks idle, and another project might take its place.
    let thread = this.#threadNow(projectId);
    for (; thread === null; thread = this.#threadNow(projectId)) await new Promise<void>((resolve) => this.#line.push(resolve));
    try {
      return await thread.ask(projectId, question);
    } catch (error) {
      if (thread.ended) this.#end(projectId, thread);
      if (error instanceof DomainError && error.refusal.code === 'computation_too_heavy') this.#restUntil.set(projectId, performance.now() + this.#limits.restMs);
      throw error;
    } finally {
      for (const goOn of this.#line.splice(0)) goOn();
    }
  }

  /** Reads everything of a project again at the next question. */
  forget(projectId: string): void {
    const thread = this.#threads.get(projectId);
    if (thread !== undefined && !thread.busy) this.#end(projectId, thread);
  }

  async close(): Promise<void> {
    clearInterval(this.#sweep);
    await Promise.all([...this.#threads.values(), ...(this.#spare === null ? [] : [this.#spare])].map((thread) => thread.end()));
  }

  /** The project's thread: its own, the spare one, a new one, or the place of one that is idle, of whoever asked longest ago; null while all are busy. */
  #threadNow(projectId: string): ProjectThread | null {
    // A thread may have died while nobody asked it.
    for (const [id, thread] of this.#threads) if (thread.ended) this.#end(id, thread);
    if (this.#spare?.ended === true) this.#spare = null;
    const own = this.#threads.get(projectId);
    if (own === undefined && this.#threads.size >= MOST_THREADS) {
      const idle = [...this.#threads].find(([, thread]) => !thread.busy);
      if (idle === undefined) return null;
      this.#end(...idle);
    }
    const thread = own ?? this.#spare ?? new ProjectThread(this.#databaseUrl, this.#limits.mostMs);
    if (thread === this.#spare) this.#spare = null;
    // ThreadRequest last: it is the last to go.
    this.#threads.delete(projectId);
    this.#threads.set(projectId, thread);
    return thread;
  }

  #end(projectId: string, thread: ProjectThread): void {
    if (this.#threads.get(projectId) === thread) this.#threads.delete(projectId);
    void thread.end();
  }

  #endIdle(): void {
    for (const [projectId, thread] of this.#threads) if (!thread.busy && performance.now() - thread.askedAt > IDLE_MS) this.#end(projectId, thread);
    for (const [projectId, until] of this.#restUntil) if (until < performance.now()) this.#restUntil.delete(projectId);
  }
}
