import type { MiddlewareHandler } from 'hono';
import { DomainError } from '../domainError.ts';

/** Knows what is under way, so that a server that is to stop can finish it and take in nothing more. */
export class Stopping {
  #underWay = 0;
  #stopping = false;
  #whenDone: (() => void) | null = null;

  /** Whether nothing more is taken in. */
  get begun(): boolean {
    return this.#stopping;
  }

  readonly count: MiddlewareHandler = async (_, next) => {
    if (this.#stopping) throw new DomainError({ code: 'server_stopping' });
    this.#underWay += 1;
    try {
      await next();
    } finally {
      this.#underWay -= 1;
      if (this.#underWay === 0) this.#whenDone?.();
    }
  };

  /** Takes in nothing more; answers once all that is under way is done, or `patienceMs` have passed. */
  async finish(patienceMs: number): Promise<void> {
    this.#stopping = true;
    if (this.#underWay === 0) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, patienceMs);
      this.#whenDone = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
