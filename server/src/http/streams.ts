import { DomainError } from '../domainError.ts';

/** Pages that may listen at once, of one session and of one person. */
export const MOST_STREAMS = { session: 20, person: 60 } as const;

interface Stream {
  readonly session: string;
  readonly person: string;
  end(): void;
}

/** The event streams that are open, so that they can be counted, and ended with their session. */
export class Streams {
  readonly #open = new Set<Stream>();

  /** @throws {DomainError} when a session or a person has as many as they may. */
  refuseTooMany(session: string, person: string): void {
    const count = (of: (stream: Stream) => boolean): number => [...this.#open].filter(of).length;
    if (count((s) => s.session === session) >= MOST_STREAMS.session) throw new DomainError({ code: 'too_many_streams', limit: MOST_STREAMS.session });
    if (count((s) => s.person === person) >= MOST_STREAMS.person) throw new DomainError({ code: 'too_many_streams', limit: MOST_STREAMS.person });
  }

  get count(): number {
    return this.#open.size;
  }

  /** How many different people listen. */
  get people(): number {
    return new Set([...this.#open].map((s) => s.person)).size;
  }

  /** Answers how to take it off again. */
  add(stream: Stream): () => void {
    this.#open.add(stream);
    return () => void this.#open.delete(stream);
  }

  /** Ends what a session, or without one a person, listens to. */
  endOf(ended: { readonly session: string } | { readonly person: string }): void {
    for (const stream of [...this.#open]) if ('session' in ended ? stream.session === ended.session : stream.person === ended.person) stream.end();
  }

  endAll(): void {
    for (const stream of [...this.#open]) stream.end();
  }
}
