import { DomainError } from '../domainError.ts';

/** How long whoever has too much under way is asked to wait. */
const WAIT_SECONDS = 2;

/** Counts what each person has under way, and refuses what is more than they may have at once. */
export class AtOnce {
  readonly #most: number;
  readonly #underWay = new Map<string, number>();

  constructor(most: number) {
    this.#most = most;
  }

  /** @throws {DomainError} when the person has as much under way as they may. */
  async run<T>(person: string, action: () => Promise<T>): Promise<T> {
    const now = this.#underWay.get(person) ?? 0;
    if (now >= this.#most) throw new DomainError({ code: 'too_much_at_once', seconds: WAIT_SECONDS });
    this.#underWay.set(person, now + 1);
    try {
      return await action();
    } finally {
      const left = (this.#underWay.get(person) ?? 1) - 1;
      if (left === 0) this.#underWay.delete(person);
      else this.#underWay.set(person, left);
    }
  }
}
