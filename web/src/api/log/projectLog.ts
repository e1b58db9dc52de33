import type { ArtefactId } from '@caderno/core/artefacts';
import type { CoverageRow } from '@caderno/core/coverage';
import { unpackHeads, unpackRows, type AskNews, type ChangesSince, type CoverageSince, type ResponseOf, type Summary } from '@caderno/contract';
import type { Foreseen } from './foreseen.ts';
import { headsAfter, headsOf, type Heads } from './headLists.ts';

/** What is known of a project without opening anything: heads and coverage rows, as of a revision. Never changed; what happens makes the next one. */
export interface KnownProject {
  readonly revision: number;
  readonly heads: Heads;
  readonly suspectLinks: number;
  /** Null until the rows have come. */
  readonly coverage: KnownCoverage | null;
  /** Why the rows did not come; they are asked for again with the next change. */
  readonly coverageError: unknown;
}
export interface KnownCoverage {
  readonly edition: number;
  readonly rows: ReadonlyMap<string, CoverageRow>;
}

/** Where the project is read from. */
export interface LogSource {
  heads(after: string | undefined): Promise<ResponseOf<'readHeads'>>;
  changes(since: number): Promise<ChangesSince>;
  rows(since: number | undefined): Promise<CoverageSince>;
  /** Waits a while before what failed is tried again; false: it is not to be, as the session is over. */
  pause(error: unknown): Promise<boolean>;
}

export type Changes = Extract<ChangesSince, { kind: 'changes' }>;

/** Who is told when something happened, and makes what was read besides stale. */
export interface LogWatcher {
  /** Null: anything may have changed. */
  onChanges(changes: Changes | null, heads: Heads): Promise<void>;
  onCoverage(changed: ReadonlySet<string>): void;
}

/**
 * The browser's store of a project: filled once, then brought up by what changed. News that does not follow on what is
 * known is not taken in, but asked for; so it does not matter in which order, or how often, news comes.
 */
export class ProjectLog {
  readonly #source: LogSource;
  readonly #watcher: LogWatcher;
  readonly #listeners = new Set<() => void>();
  /** As the server told it. */
  #told: KnownProject | null = null;
  /** That, with what one's own commands will have made of it. */
  #known: KnownProject | null = null;
  readonly #foreseen = new Set<Foreseen>();
  /** Readings follow each other: the second goes on from where the first came to. */
  #heads: Promise<void> = Promise.resolve();
  #rows: Promise<void> = Promise.resolve();
  #begun = false;

  constructor(source: LogSource, watcher: LogWatcher) {
    this.#source = source;
    this.#watcher = watcher;
  }

  readonly known = (): KnownProject | null => this.#known;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    this.begin();
    return () => void this.#listeners.delete(listener);
  };

  /** Fills the store, once. */
  begin(): void {
    if (this.#begun) return;
    this.#begun = true;
    this.#heads = this.#untilDone(() => this.#fill());
    this.#rows = this.#heads.then(() => (this.#told === null ? undefined : this.#readRows()));
  }

  /** Reads what changed, and has what hangs on it read again; answers when all is as it is on the server now. */
  refresh(): Promise<void> {
    this.begin();
    const done = this.#heads.then(() => this.#catchUp());
    this.#heads = done.catch(() => undefined);
    return done;
  }

  /** Reads the coverage rows that were written since. */
  refreshCoverage(): Promise<void> {
    this.begin();
    this.#rows = this.#rows.then(() => this.#readRows());
    return this.#rows;
  }

  /**
   * Shows a command as if it were done until the answered function is called: once what it did is known, or when it was
   * refused, so that it is taken back.
   */
  foresee(foreseen: Foreseen): () => void {
    this.#foreseen.add(foreseen);
    this.#show();
    return () => {
      if (this.#foreseen.delete(foreseen)) this.#show();
    };
  }

  /** Takes in news of changes as they were pushed. */
  takeChanges(news: ChangesSince | AskNews): void {
    if (this.#told === null) return;
    if (news.kind !== 'changes' || news.since > this.#told.revision) void this.refresh().catch(() => undefined);
    else void this.#apply(news);
  }

  /** Takes in news of coverage as it was pushed. */
  takeCoverage(news: CoverageSince | AskNews): void {
    if (this.#told === null) return;
    const { coverage } = this.#told;
    if (coverage === null || 'kind' in news || news.since === null || news.since > coverage.edition) void this.refreshCoverage();
    else this.#applyRows(news);
  }

  /** What follows in the stream goes on from here: what came before is asked for. */
  takePlace({ revision, edition }: { readonly revision: number; readonly edition: number }): void {
    if (this.#told === null) return;
    if (revision !== this.#told.revision) void this.refresh().catch(() => undefined);
    if (edition !== this.#told.coverage?.edition) void this.refreshCoverage();
  }

  async #untilDone(action: () => Promise<void>): Promise<void> {
    for (;;) {
      try {
        return await action();
      } catch (error) {
        if (await this.#source.pause(error)) continue;
        // Whoever asks next begins anew.
        this.#begun = false;
        return;
      }
    }
  }

  async #fill(): Promise<void> {
    const all: Summary[] = [];
    let revision: number | null = null;
    for (let after: string | undefined; ; ) {
      const page = await this.#source.heads(after);
      revision ??= page.revision;
      all.push(...unpackHeads(page.heads));
      if (page.next === null) {
        this.#set({ coverage: null, coverageError: null, ...this.#told, revision, heads: headsOf(all), suspectLinks: page.suspectLinks });
        break;
      }
      after = page.next;
    }
    // What happened while the pages were read.
    const news = await this.#source.changes(revision);
    if (news.kind !== 'changes') throw new Error(`What was filled at revision ${revision} is too old at ${news.revision}`);
    await this.#apply(news);
  }

  async #catchUp(): Promise<void> {
    if (this.#told === null) return;
    const news = await this.#source.changes(this.#told.revision);
    if (news.kind === 'changes') return this.#apply(news);
    await this.#fill();
    await this.#watcher.onChanges(null, this.#told.heads);
  }

  async #apply(changes: Changes): Promise<void> {
    if (this.#told === null || changes.revision <= this.#told.revision) return;
    const heads = headsAfter(this.#told.heads, unpackHeads(changes.heads), changes.gone);
    this.#set({ ...this.#told, revision: changes.revision, heads, suspectLinks: changes.suspectLinks });
    await this.#watcher.onChanges(changes, heads);
  }

  async #readRows(): Promise<void> {
    try {
      this.#applyRows(await this.#source.rows(this.#told?.coverage?.edition));
    } catch (coverageError) {
      if (this.#told !== null) this.#set({ ...this.#told, coverageError });
    }
  }

  #applyRows({ since, edition, rows, gone }: CoverageSince): void {
    if (this.#told === null) return;
    const before = this.#told.coverage;
    if (before !== null && since !== null && edition <= before.edition) return;
    const changed = unpackRows(rows);
    const next = new Map(since === null ? [] : before?.rows);
    for (const row of changed) next.set(row.id, row);
    for (const id of gone) next.delete(id);
    this.#set({ ...this.#told, coverage: { edition, rows: next }, coverageError: null });
    if (changed.length + gone.length > 0) this.#watcher.onCoverage(new Set<string>([...changed.map((r) => r.id), ...gone]));
  }

  #set(told: KnownProject): void {
    this.#told = told;
    this.#show();
  }

  #show(): void {
    this.#known = this.#told === null ? null : withForeseen(this.#told, this.#foreseen);
    for (const listener of [...this.#listeners]) listener();
  }
}

function withForeseen(told: KnownProject, foreseen: ReadonlySet<Foreseen>): KnownProject {
  const changed = new Map<ArtefactId, Summary>();
  for (const { ids, head } of foreseen) {
    for (const id of ids) {
      const before = changed.get(id) ?? told.heads.byId.get(id);
      const after = before === undefined ? undefined : head(before);
      if (after !== undefined && after !== before) changed.set(id, after);
    }
  }
  return changed.size === 0 ? told : { ...told, heads: headsAfter(told.heads, changed.values(), []) };
}

/** The ids that something else than a head is to be looked at for: what changed, and what that links to. */
export function idsConcerned({ touched, gone }: Changes): Set<ArtefactId> {
  return new Set([...touched.flatMap((t) => [t.id, ...t.to]), ...gone]);
}
