import { randomUUID } from 'node:crypto';
import { artefactId, type RequirementId } from '@caderno/core/artefacts';
import { addedContent, baseOf, changedContent, openConflicts, type ConflictChoice, type Entry, type Mapping, type ReadingOptions } from '@caderno/core/exchange';
import { changeOfRetry, insertArtefacts, lastPosition, lockProject, placeAfter, placeInOrder, writeJournalEntry, reserveNumbers, writeVersions, type Actor, type JournalEntryPart, type NewArtefactRow, type OnWritten, type UndoPlan } from '../artefacts/index.ts';
import { execute, modelsOf, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { STORIES_FILE, noteTracker } from '../tracker/index.ts';
import type { StoredRequirement } from './existing.ts';
import { rememberSource } from './importSource.ts';
import { planEntries, type Planned, type ReadEntries } from './importing.ts';

export interface ImportOrder {
  readonly mapping: Mapping;
  readonly reading: ReadingOptions;
  readonly choices: Readonly<Record<string, ConflictChoice>>;
}

/** Told how many of all are done; may throw to stop. */
export type OnProgress = (done: number, total: number) => Promise<void>;

/**
 * Imports a file that has been read, as one change: what is new is added, what the file changed is changed, the rest is left alone.
 * Everything or nothing. Answers the id of the change.
 */
export async function importFile(work: UnitOfWork, actor: Actor, entries: ReadEntries, { mapping, choices }: Omit<ImportOrder, 'reading'>, onProgress: OnProgress = () => Promise.resolve()): Promise<string> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const planned = await planEntries(work, actor.projectId, entries);
  const { plan, read, document } = planned;
  const chosen = new Map(Object.entries(choices));
  const open = openConflicts(plan, chosen);
  if (open.length > 0) throw new DomainError({ code: 'import_conflicts_open', count: open.length });
  if (read.entries.length === 0) throw new DomainError({ code: 'import_unreadable', errors: read.problems.filter((p) => p.severity === 'error').length });
  if (plan.added.length + plan.changed.length === 0) throw new DomainError({ code: 'import_changes_nothing' });
  await rememberSource(work, actor.projectId, { name: mapping.source, mapping, types: document.types });
  const total = plan.added.length + plan.changed.length;
  const change = randomUUID();
  const writer = new ImportWriter(work, actor, change, mapping.source, planned);
  const added = await writer.add((done) => onProgress(done, total));
  const changed = await writer.change(chosen, (done) => onProgress(plan.added.length + done, total));
  await writer.placeAmongSiblings();
  const parts = [...added, ...changed, ...(await writer.move()), ...(await writer.rememberBases())];
  // What the tracker had is in: nothing there is new any more.
  if (entries.name === STORIES_FILE) await noteTracker(work, actor.projectId, actor.at, { newStories: 0, changedStories: 0 });
  await writeJournalEntry(work, actor, { action: 'import', parts, detail: mapping.source, note: `${plan.added.length} added, ${plan.changed.length} changed` }, change);
  return change;
}

class ImportWriter {
  readonly #work: UnitOfWork;
  readonly #actor: Actor;
  readonly #change: string;
  readonly #source: string;
  readonly #planned: Planned;
  /** The project's id for a key of the source, new ones included. */
  readonly #ids = new Map<string, RequirementId>();
  readonly #rows = new Map<RequirementId, ArtefactRow>();
  readonly #existingById: ReadonlyMap<RequirementId, StoredRequirement>;

  constructor(work: UnitOfWork, actor: Actor, change: string, source: string, planned: Planned) {
    this.#work = work;
    this.#actor = actor;
    this.#change = change;
    this.#source = source;
    this.#planned = planned;
    this.#existingById = new Map(planned.existing.map((e) => [e.id, e]));
    for (const { id } of planned.existing) this.#ids.set(id, id);
    for (const { entry, id } of [...planned.plan.same, ...planned.plan.changed]) this.#ids.set(entry.key, id);
  }

  async add(onWritten: OnWritten): Promise<JournalEntryPart[]> {
    const { added } = this.#planned.plan;
    if (added.length === 0) return [];
    const first = await reserveNumbers(this.#work, this.#actor.projectId, 'requirement', added.length);
    added.forEach(({ entry }, i) => this.#ids.set(entry.key, artefactId('requirement', first + i)));
    const positions = await this.#positions(added.map((a) => a.entry));
    const made = added.map(({ entry }, i): NewArtefactRow => ({
      number: first + i,
      value: { kind: 'requirement', content: addedContent(this.#source, entry, this.#planned.fields, (key) => this.#ids.get(key) ?? null) },
      parent: this.#parentNumber(entry),
      position: positions[i] ?? i + 1,
    }));
    const { rows, parts } = await insertArtefacts(this.#work, this.#actor, this.#change, made, onWritten);
    for (const row of rows) this.#rows.set(artefactId('requirement', row.number), row);
    return parts;
  }

  /** What is new stands where the file has it among what was there; what moves over for it keeps its order. */
  async placeAmongSiblings(): Promise<void> {
    const { plan, read } = this.#planned;
    const isNew = new Set(plan.added.map(({ entry }) => entry));
    const byParent = new Map<number | null, Entry[]>();
    for (const entry of read.entries) byParent.set(this.#parentNumber(entry), [...(byParent.get(this.#parentNumber(entry)) ?? []), entry]);
    for (const [parent, siblings] of byParent) {
      const lastKnown = siblings.findLastIndex((entry) => !isNew.has(entry));
      // Those after all that were there stand at the end already.
      if (lastKnown < 0 || !siblings.slice(0, lastKnown).some((entry) => isNew.has(entry))) continue;
      const order = siblings.map((entry) => ({ id: this.#ids.get(entry.key) ?? null, isNew: isNew.has(entry) }));
      await placeInOrder(this.#work, this.#actor.projectId, parent, order.flatMap(({ id, isNew: made }) => (id === null ? [] : [{ number: Number(id.slice(2)), isNew: made }])));
    }
  }

  #parentNumber(entry: Entry): number | null {
    const parent = typeof entry.parent === 'string' ? this.#ids.get(entry.parent) : undefined;
    return parent === undefined ? null : Number(parent.slice(2));
  }

  /** Places after what stands there already, in the order of the file. */
  async #positions(entries: readonly Entry[]): Promise<number[]> {
    const last = new Map<number | null, number>();
    const positions: number[] = [];
    for (const entry of entries) {
      const parent = this.#parentNumber(entry);
      const before = last.get(parent) ?? (await this.#lastPosition(parent));
      last.set(parent, before + 1);
      positions.push(before + 1);
    }
    return positions;
  }

  async #lastPosition(parent: number | null): Promise<number> {
    const existing = parent === null ? null : this.#existingById.get(artefactId('requirement', parent));
    if (existing === undefined) return 0;
    return lastPosition(this.#work, this.#actor.projectId, existing?.rowId ?? null);
  }

  async change(choices: ReadonlyMap<string, ConflictChoice>, onWritten: OnWritten): Promise<JournalEntryPart[]> {
    const { changed } = this.#planned.plan;
    if (changed.length === 0) return [];
    await this.#readRows(changed.map((c) => c.id));
    const saves = changed.map((change) => {
      const existing = this.#existing(change.id);
      const content = changedContent(existing.content, change, existing.base, choices, this.#planned.fields, (key) => this.#ids.get(key) ?? null);
      return { row: this.#row(change.id), value: { kind: 'requirement' as const, content } };
    });
    return writeVersions(this.#work, this.#actor, this.#change, saves, '', onWritten);
  }

  async move(): Promise<JournalEntryPart[]> {
    const parts: JournalEntryPart[] = [];
    for (const { entry, id, moves } of this.#planned.plan.changed) {
      if (!moves) continue;
      const parent = this.#parentNumber(entry);
      parts.push(await placeAfter(this.#work, this.#row(id), parent === null ? null : artefactId('requirement', parent), 'last'));
    }
    return parts;
  }

  /** What the next import of the source is told apart from; taken back with the import. */
  async rememberBases(): Promise<JournalEntryPart[]> {
    const { added, changed, same } = this.#planned.plan;
    const fromSource = ({ id }: { readonly id: RequirementId }): boolean => this.#existing(id).content.origin?.source === this.#source;
    const known = [...changed, ...same].filter(fromSource);
    await this.#readRows(known.map((k) => k.id));
    const met = [...added.map(({ entry }) => ({ entry, id: this.#ids.get(entry.key) })), ...known];
    const bases = met.flatMap(({ entry, id }) => {
      if (id === undefined) return [];
      const row = this.#row(id);
      const existing = this.#existingById.get(id);
      const content = existing?.content ?? addedContent(this.#source, entry, this.#planned.fields, () => null);
      return [{ row, from: existing?.base ?? null, to: baseOf(entry, content, this.#planned.fields) }];
    });
    await execute(
      this.#work,
      `INSERT INTO imported (artefact_id, base) SELECT r.id, r.base FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, base jsonb) ON CONFLICT (artefact_id) DO UPDATE SET base = excluded.base`,
      [JSON.stringify(bases.map(({ row, to }) => ({ id: row.id, base: to })))],
    );
    // A requirement that the import made goes with it; its base needs no undoing of its own.
    return bases.flatMap(({ row, from, to }) => (from === null ? [] : [{ artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'imported', from, to } satisfies UndoPlan }]));
  }

  async #readRows(ids: readonly RequirementId[]): Promise<void> {
    const missing = ids.filter((id) => !this.#rows.has(id)).map((id) => Number(id.slice(2)));
    const rows = await modelsOf(this.#work.db).Artefact.findAll({ where: { projectId: this.#actor.projectId, kind: 'requirement', number: missing }, transaction: this.#work.transaction });
    for (const row of rows) this.#rows.set(artefactId('requirement', row.number), row);
  }

  #existing(id: RequirementId): StoredRequirement {
    const existing = this.#existingById.get(id);
    if (existing === undefined) throw new Error(`A planned change is of a requirement that is there: expected ${id}`);
    return existing;
  }

  #row(id: RequirementId): ArtefactRow {
    const row = this.#rows.get(id);
    if (row === undefined) throw new Error(`An import reads the rows it changes: expected ${id}`);
    return row;
  }
}
