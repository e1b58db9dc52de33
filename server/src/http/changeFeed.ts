import { PROJECT_EVENTS } from '@caderno/contract';
import pg from 'pg';
import { z } from 'zod';
import { CHANGES_CHANNEL } from '../artefacts/index.ts';
import { COVERAGE_CHANNEL } from '../coverage/index.ts';
import { SESSIONS_CHANNEL } from '../people/index.ts';
import { PAGES_CHANNEL, type PageNews } from '../projects/index.ts';
import type { Log } from './log.ts';
import { Streams } from './streams.ts';

/** Tells every server that a session, or all of a person, has ended. */
const ended = z.union([z.object({ session: z.string() }), z.object({ person: z.uuid() })]);

const changed = z.object({ project: z.string(), revision: z.int() });
const covered = z.object({ project: z.string(), edition: z.int() });
const pageNews: z.ZodType<PageNews> = z.discriminatedUnion('event', [z.object({ event: z.literal('remarked'), data: PROJECT_EVENTS.remarked }), z.object({ event: z.literal('reviewed'), data: PROJECT_EVENTS.reviewed }), z.object({ event: z.literal('frozen'), data: z.strictObject({}) }), z.object({ event: z.literal('delivered'), data: PROJECT_EVENTS.delivered })]);
const told = z.object({ project: z.string(), news: pageNews });

/** What is heard of a project: that it moved on, that pages are to be told something, or, after a pause in which nothing was heard, that it may have. */
export type Heard = { readonly kind: 'changed'; readonly revision: number } | { readonly kind: 'covered'; readonly edition: number } | { readonly kind: 'told'; readonly news: PageNews } | { readonly kind: 'again' };
export type Listener = (heard: Heard) => void;

const FIRST_RETRY_MS = 200;
const LONGEST_RETRY_MS = 5_000;

/**
 * Hears of changes made through any server on the database, by a connection of its own. After a lost connection it
 * tells every listener so, as it cannot know what it missed.
 */
export class ChangeFeed {
  readonly #url: string;
  readonly #log: Log;
  readonly streams = new Streams();
  readonly #listeners = new Map<string, Set<Listener>>();
  #client: pg.Client | null = null;
  #closed = false;
  #hears = false;
  #retryMs = FIRST_RETRY_MS;
  #timer: NodeJS.Timeout | null = null;

  constructor(url: string, log: Log) {
    this.#url = url;
    this.#log = log;
  }

  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.#url, application_name: 'caderno changes', keepAlive: true });
    this.#client = client;
    // A lost connection says 'error' twice; only the first one counts.
    client.on('error', (error) => this.#lost(client, error));
    client.on('end', () => this.#lost(client, new Error('connection ended')));
    client.on('notification', ({ channel, payload }) => this.#hear(channel, payload ?? ''));
    try {
      await client.connect();
      await client.query(`LISTEN ${CHANGES_CHANNEL}; LISTEN ${COVERAGE_CHANNEL}; LISTEN ${SESSIONS_CHANNEL}; LISTEN ${PAGES_CHANNEL}`);
      this.#retryMs = FIRST_RETRY_MS;
      this.#hears = true;
    } catch (error) {
      this.#lost(client, error);
    }
  }

  /** Whether changes are heard now. */
  get hears(): boolean {
    return this.#hears;
  }

  /** Calls `listener` for every change of a project until the answered function is called. */
  listen(project: string, listener: Listener): () => void {
    const listeners = this.#listeners.get(project) ?? new Set();
    this.#listeners.set(project, listeners.add(listener));
    return () => {
      listeners.delete(listener);
      if (listeners.size === 0 && this.#listeners.get(project) === listeners) this.#listeners.delete(project);
    };
  }

  async close(): Promise<void> {
    this.#closed = true;
    this.streams.endAll();
    if (this.#timer !== null) clearTimeout(this.#timer);
    await this.#client?.end();
  }

  /** Anybody with the database's password may notify: what is none of ours is noted and forgotten. */
  #hear(channel: string, payload: string): void {
    const value = jsonOrNull(payload);
    const change = changed.safeParse(value);
    const cover = covered.safeParse(value);
    const said = told.safeParse(value);
    const end = ended.safeParse(value);
    if (channel === CHANGES_CHANNEL && change.success) this.#pass(change.data.project, { kind: 'changed', revision: change.data.revision });
    else if (channel === COVERAGE_CHANNEL && cover.success) this.#pass(cover.data.project, { kind: 'covered', edition: cover.data.edition });
    else if (channel === PAGES_CHANNEL && said.success) this.#pass(said.data.project, { kind: 'told', news: said.data.news });
    else if (channel === SESSIONS_CHANNEL && end.success) this.streams.endOf(end.data);
    else this.#log.warn({ channel, bytes: payload.length }, 'unreadable notification');
  }

  #pass(project: string, heard: Heard): void {
    for (const listener of this.#listeners.get(project) ?? []) listener(heard);
  }

  #lost(client: pg.Client, error: unknown): void {
    if (this.#closed || client !== this.#client) return;
    this.#client = null;
    this.#hears = false;
    this.#log.warn({ err: error, retryMs: this.#retryMs }, 'change feed lost its connection');
    this.#timer = setTimeout(() => void this.#again(), this.#retryMs);
    this.#retryMs = Math.min(this.#retryMs * 2, LONGEST_RETRY_MS);
  }

  async #again(): Promise<void> {
    await this.start();
    if (this.#client === null) return;
    for (const listeners of this.#listeners.values()) for (const listener of listeners) listener({ kind: 'again' });
  }
}

function jsonOrNull(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}
