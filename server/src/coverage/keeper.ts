import { Refused } from '../refused.ts';
import { ProjectThread } from './projectThread.ts';
import type { AnswerTo, Question } from './question.ts';

/** Projects with a thread of their own at a time; the one asked longest ago gives its thread up. */
const MOST_THREADS = 4;

/** A thread that nobody asks for so long is ended: it gives its memory back. */
const IDLE_MS = 10 * 60_000;

/** After a question that took too much, the project's questions are refused for so long: the next one would take as much. */
const REST_MS = 20_000;

/**
 * Answers questions on coverage, each project's in a thread of its own: a heavy one holds up its own project and
 * nobody else, and is ended when it takes too much.
 */
export class CoverageKeeper {
  readonly #databaseUrl: string;
  /** The one asked longest ago first. */
  readonly #threads = new Map<string, ProjectThread>();
  readonly #line: (() => void)[] = [];
  readonly #restUntil = new Map<string, number>();
  readonly #sweep: NodeJS.Timeout;
  #spare: ProjectThread | null;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
    // Started before the first question, which would otherwise wait for it.
    this.#spare = new ProjectThread(databaseUrl);
    this.#sweep = setInterval(() => this.#endIdle(), IDLE_MS / 10).unref();
  }

  /** @throws Refused when it takes more time or memory than one question is given. */
  async ask<Q extends Question>(projectId: string, question: Q): Promise<AnswerTo[Q['kind']]> {
    if ((this.#restUntil.get(projectId) ?? 0) > performance.now()) throw new Refused({ code: 'computation_too_heavy' });
    const thread = this.#threads.get(projectId) ?? (await this.#begin(projectId));
    // Asked last: it is the last to go.
    this.#threads.delete(projectId);
    this.#threads.set(projectId, thread);
    try {
      return await thread.ask(projectId, question);
    } catch (error) {
      if (thread.ended) this.#end(projectId, thread);
      if (error instanceof Refused && error.refusal.code === 'computation_too_heavy') this.#restUntil.set(projectId, performance.now() + REST_MS);
      throw error;
    } finally {
      this.#line.shift()?.();
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

  /** A thread for a project that has none: the spare one, a new one, or one that is taken from whoever asked longest ago. */
  async #begin(projectId: string): Promise<ProjectThread> {
    for (;;) {
      const begun = this.#threads.get(projectId);
      if (begun !== undefined) return begun;
      const idle = this.#threads.size < MOST_THREADS ? undefined : [...this.#threads].find(([, t]) => !t.busy);
      if (idle !== undefined) this.#end(...idle);
      if (this.#threads.size < MOST_THREADS) break;
      await new Promise<void>((resolve) => this.#line.push(resolve));
    }
    const thread = this.#spare ?? new ProjectThread(this.#databaseUrl);
    this.#spare = null;
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
