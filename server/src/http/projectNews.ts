import { setTimeout as sleep } from 'node:timers/promises';
import type { AskNews, ChangesSince, CoverageSince, PROJECT_EVENTS } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { coverageState, hasComeTo, readRowsSince, type CoverageKeeper } from '../coverage/index.ts';
import { inSnapshot } from '../database/index.ts';
import { deliver } from '../inbox/index.ts';
import { readChangesSince, revisionOf } from '../log/index.ts';
import { DomainError } from '../domainError.ts';
import type { ChangeFeed, Heard } from './changeFeed.ts';
import type { Log } from './log.ts';
import type { Metrics } from './metrics.ts';

/** An event as it goes to every page that is open on a project; written down once for all of them. */
export interface NewsItem {
  readonly event: keyof typeof PROJECT_EVENTS;
  /** Where a page that was away goes on. */
  readonly id: string;
  readonly data: string;
}
export type Receiver = (item: NewsItem) => void;

export interface NewsProject {
  readonly id: string;
  readonly key: string;
}

/** Tells pages what changed in their project: read once from the journal, however many are open. */
export class ProjectNews {
  readonly #given: NewsGiven;
  readonly #projects = new Map<string, OneProject>();

  constructor(given: NewsGiven) {
    this.#given = given;
  }

  /** Tells `receiver` of everything from now on, until the answered function is called. */
  async listen(project: NewsProject, receiver: Receiver): Promise<{ readonly from: NewsPlace; stop(): void }> {
    const one = this.#projects.get(project.id) ?? new OneProject(this.#given, project, () => this.#projects.delete(project.id));
    this.#projects.set(project.id, one);
    const stop = one.add(receiver);
    await one.ready;
    return { from: one.place, stop };
  }
}

/** Where news goes on from: what came before is not told. */
export interface NewsPlace {
  readonly revision: number;
  readonly edition: number;
}

interface NewsGiven {
  readonly db: Sequelize;
  readonly feed: ChangeFeed;
  readonly coverage: CoverageKeeper;
  readonly metrics: Metrics;
  readonly log: Log;
  /** For as long a server leaves it to another one to bring the coverage of a project up to a change. */
  readonly leaveToAnother?: () => Promise<void>;
}

const LEFT_TO_ANOTHER_MS = 400;
const leaveToAnother = (): Promise<void> => sleep(LEFT_TO_ANOTHER_MS);

/** The pages of one project, and how far they have been told. */
class OneProject {
  readonly #given: NewsGiven;
  readonly #project: NewsProject;
  readonly #receivers = new Set<Receiver>();
  readonly #stop: () => void;
  readonly #onEmpty: () => void;
  /** Until how far it was read; null: not yet. */
  #revision: number | null = null;
  #edition: number | null = null;
  /** Whether this server brought the coverage up the last time. */
  #isOurs = true;
  readonly #changes = new OneAtATime(() => this.#tellChanges(), (error) => this.#missed(error));
  readonly #coverage = new OneAtATime(() => this.#tellCoverage(), (error) => this.#missed(error));
  readonly #delivering = new OneAtATime(() => deliver(this.#given.db, this.#project.id), (error) => this.#missed(error));
  readonly #consuming = new OneAtATime(() => this.#consume(), (error) => this.#missed(error));
  /** Settles when it is known from where on is told. */
  readonly ready: Promise<void>;

  constructor(given: NewsGiven, project: NewsProject, onEmpty: () => void) {
    this.#given = given;
    this.#project = project;
    this.#onEmpty = onEmpty;
    this.#stop = given.feed.listen(project.key, (heard) => this.#hear(heard));
    this.ready = this.#begin();
  }

  get place(): NewsPlace {
    return { revision: this.#revision ?? 0, edition: this.#edition ?? 0 };
  }

  add(receiver: Receiver): () => void {
    this.#receivers.add(receiver);
    return () => {
      this.#receivers.delete(receiver);
      if (this.#receivers.size > 0) return;
      this.#stop();
      this.#onEmpty();
    };
  }

  async #begin(): Promise<void> {
    try {
      const { revision, state } = await inSnapshot(this.#given.db, async (work) => ({ revision: await revisionOf(work, this.#project.id), state: await coverageState(work, this.#project.id) }));
      this.#revision ??= revision;
      this.#edition ??= state?.edition ?? 0;
    } catch (error) {
      this.#missed(error);
    }
  }

  #hear(heard: Heard): void {
    if (heard.kind === 'told') return this.#send({ event: heard.news.event, id: '', data: JSON.stringify(heard.news.data) });
    if (heard.kind !== 'covered') {
      void this.#changes.go();
      void this.#consuming.go();
      void this.#delivering.go();
    }
    if (heard.kind !== 'changed') void this.#coverage.go();
  }

  async #tellChanges(): Promise<void> {
    const since = this.#revision;
    const began = performance.now();
    if (since === null) return this.#begin();
    const changes = await inSnapshot(this.#given.db, (work) => readChangesSince(work, this.#project.id, since));
    if (changes.revision === since && changes.kind === 'changes') return;
    this.#revision = changes.revision;
    this.#send(changesItem(changes));
    this.#given.metrics.told(performance.now() - began);
  }

  async #tellCoverage(): Promise<void> {
    const since = this.#edition;
    if (since === null) return this.#begin();
    const rows = await inSnapshot(this.#given.db, (work) => readRowsSince(work, this.#project.id, since));
    if (rows.edition === since) return;
    this.#edition = rows.edition;
    this.#send(coverageItem(rows));
  }

  /**
   * Has the coverage brought up to the change: who looks at the project wants to see it. The server that did it last does it
   * again, for it has the project in memory; the others leave it the time to, and go on in its place when it does not.
   */
  async #consume(): Promise<void> {
    const began = performance.now();
    if (!this.#isOurs && (await this.#isDoneByAnother())) return;
    try {
      const { byUs } = await this.#given.coverage.ask(this.#project.id, { kind: 'catchUp' });
      this.#isOurs = byUs;
      this.#given.metrics.covered(performance.now() - began);
    } catch (error) {
      // Too heavy, or the server is busy: the pages show what was known before, and asking again is theirs.
      if (!(error instanceof DomainError)) throw error;
      this.#given.log.warn({ code: error.refusal.code, project: this.#project.key }, 'coverage was not brought up to a change');
    }
  }

  async #isDoneByAnother(): Promise<boolean> {
    const wanted = await inSnapshot(this.#given.db, (work) => revisionOf(work, this.#project.id));
    await (this.#given.leaveToAnother ?? leaveToAnother)();
    return inSnapshot(this.#given.db, (work) => hasComeTo(work, this.#project.id, wanted));
  }

  /** The database was away, say: what was missed is read with the next change, or when it is heard again. */
  #missed(error: unknown): void {
    this.#given.log.warn({ err: error, project: this.#project.key }, 'news could not be read');
  }

  #send(item: NewsItem): void {
    for (const receiver of [...this.#receivers]) receiver(item);
  }
}

/** What is larger is not pushed: who reads slowly would hold it in our memory. The page is told to ask for it. */
const MOST_PUSHED = 32 * 1024;

export function changesItem(changes: ChangesSince): NewsItem {
  return itemOf('changes', String(changes.revision), changes);
}

function coverageItem(rows: CoverageSince): NewsItem {
  return itemOf('coverage', '', rows);
}

function itemOf(event: NewsItem['event'], id: string, news: ChangesSince | CoverageSince): NewsItem {
  const data = JSON.stringify(news);
  return { event, id, data: data.length > MOST_PUSHED ? JSON.stringify({ kind: 'ask' } satisfies AskNews) : data };
}

/** Runs an action again when it was asked for while it ran, and never twice at once. */
class OneAtATime {
  readonly #action: () => Promise<void>;
  readonly #onError: (error: unknown) => void;
  #running = false;
  #again = false;

  constructor(action: () => Promise<void>, onError: (error: unknown) => void) {
    this.#action = action;
    this.#onError = onError;
  }

  async go(): Promise<void> {
    if (this.#running) {
      this.#again = true;
      return;
    }
    this.#running = true;
    try {
      do {
        this.#again = false;
        await this.#action();
      } while (this.#again);
    } catch (error) {
      this.#onError(error);
    } finally {
      this.#running = false;
    }
  }
}
