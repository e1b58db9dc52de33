import { randomUUID } from 'node:crypto';
import { ARTEFACT_KINDS, artefactId, parseArtefactId } from '@caderno/core/artefacts';
import { constantsByName, keysUsed, placesRenamed, renameEverywhere, type Renamed, type Renaming, type Reusable, type StepsOwnerId, type Used } from '@caderno/core/shared';
import type { BodyOf, KindAndContent, ResponseOf } from '@caderno/contract';
import { z } from 'zod';
import { changeOfRetry, contentOrRefused, dropDraft, lockProject, readLibrary, writeJournalEntry, writeVersions, type Actor, type Save } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { findUnmoved, readChange } from '../versions/index.ts';

type Order = BodyOf<'renameParameter'>;

/**
 * Renames a parameter in all that knows it by its name, as one entry of the journal, or says what that would change.
 * The owner's draft becomes its version.
 * @throws {DomainError} `version_moved` when the owner is no longer at the version named.
 */
export async function renameParameter(work: UnitOfWork, actor: Actor, { owner, from, to, apply }: Order): Promise<ResponseOf<'renameParameter'>> {
  if (apply) await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return { change: await readChange(work, actor.projectId, earlier), renamed: [], hindrances: [] };
  const row = await findUnmoved(work, actor.projectId, owner);
  const known = new Known(work, actor.projectId, reusableOf(owner.id, owner));
  const renaming = await known.rename(from, to);
  if (renaming.kind !== 'done') return { change: null, renamed: [], hindrances: renaming.kind === 'hindered' ? [...renaming.hindrances] : [] };
  const renamed = renaming.renamed.map((r) => known.describe(r));
  if (!apply) return { change: null, renamed, hindrances: [] };
  const change = randomUUID();
  const saves: Save[] = [];
  for (const { artefact } of renaming.renamed) {
    const save = artefact.id === owner.id ? row : await findUnmoved(work, actor.projectId, { id: artefact.id, kind: artefact.kind, version: known.versionOf(artefact.id) });
    saves.push({ row: save, value: artefact });
  }
  await dropDraft(work, actor.projectId, actor.personId, owner.id);
  const parts = await writeVersions(work, actor, change, saves);
  await writeJournalEntry(work, actor, { action: 'rename', parts, detail: `<${from}> → <${to}>`, note: '' }, change);
  return { change: await readChange(work, actor.projectId, change), renamed, hindrances: [] };
}

function reusableOf(id: StepsOwnerId, value: KindAndContent): Reusable {
  const parsed = parseArtefactId(id);
  if (value.kind === 'case' && parsed !== null) return { kind: 'case', id: artefactId('case', parsed.number), content: value.content };
  if (value.kind === 'shared' && parsed !== null) return { kind: 'shared', id: artefactId('shared', parsed.number), content: value.content };
  throw new Error(`Steps stand in cases and shared steps: expected one, got ${value.kind}`);
}

const userRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), version: z.number(), schema: z.number(), content: z.unknown() });

/** What has been read of a project for a renaming: more is read whenever the core asks for it. */
class Known {
  readonly #work: UnitOfWork;
  readonly #projectId: string;
  readonly #start: StepsOwnerId;
  readonly #artefacts = new Map<StepsOwnerId, Reusable>();
  readonly #versions = new Map<StepsOwnerId, number>();
  readonly #library = new Map<string, Used>();
  readonly #users = new Map<StepsOwnerId, readonly Reusable[]>();

  constructor(work: UnitOfWork, projectId: string, start: Reusable) {
    this.#work = work;
    this.#projectId = projectId;
    this.#start = start.id;
    this.#take(start, 0);
  }

  async rename(from: string, to: string): Promise<Renaming> {
    await this.#readUsed([...this.#artefacts.values()]);
    const constants = constantsByName((await readSettings(this.#work, this.#projectId)).settings.constants);
    for (;;) {
      const renaming = renameEverywhere(this.#start, from, to, { library: this.#library, constants, usersOf: (id) => this.#users.get(id) ?? null, artefact: (id) => this.#artefacts.get(id) });
      if (renaming.kind !== 'missing') return renaming;
      for (const id of renaming.usersOf) await this.#readUsers(id);
    }
  }

  versionOf(id: StepsOwnerId): number {
    return this.#versions.get(id) ?? 0;
  }

  describe({ artefact, hasIt }: Renamed): ResponseOf<'renameParameter'>['renamed'][number] {
    const before = this.#artefacts.get(artefact.id);
    return { id: artefact.id, title: artefact.content.title, hasIt, places: before === undefined ? 0 : placesRenamed(before, artefact) };
  }

  async #readUsers(id: StepsOwnerId): Promise<void> {
    const target = parseArtefactId(id);
    const rows = await selectRows(
      this.#work, userRow,
      `SELECT f.kind, f.number, f.head AS version, v.schema, v.content FROM artefact t JOIN link ON link.to_id = t.id AND link.type = 'uses' JOIN artefact f ON f.id = link.from_id
       JOIN artefact_version v ON v.artefact_id = f.id AND v.version = f.head
       WHERE t.project_id = $1 AND t.kind = $2 AND t.number = $3 AND f.deleted_at IS NULL ORDER BY f.kind, f.number`,
      [this.#projectId, target?.kind, target?.number],
    );
    const users = rows.map((row): { version: number; artefact: Reusable } => {
      const { version } = row;
      if (row.kind === 'case') return { version, artefact: { kind: 'case', id: artefactId('case', row.number), content: contentOrRefused('case', row) } };
      return { version, artefact: { kind: 'shared', id: artefactId('shared', row.number), content: contentOrRefused('shared', row) } };
    });
    this.#users.set(id, users.map(({ artefact }) => this.#artefacts.get(artefact.id) ?? artefact));
    const fresh = users.filter(({ artefact }) => !this.#artefacts.has(artefact.id));
    for (const { artefact, version } of fresh) this.#take(artefact, version);
    await this.#readUsed(fresh.map((f) => f.artefact));
  }

  /** What is being edited counts as it is edited. */
  #take(artefact: Reusable, version: number): void {
    this.#artefacts.set(artefact.id, artefact);
    this.#versions.set(artefact.id, version);
    this.#library.set(artefact.id, { ...artefact, version, withdrawn: false });
  }

  async #readUsed(users: readonly Reusable[]): Promise<void> {
    const keys = users.flatMap((u) => keysUsed(u.content)).filter((key) => !this.#library.has(key));
    for (const [key, used] of await readLibrary(this.#work, this.#projectId, keys)) {
      if (this.#library.has(key)) continue;
      this.#library.set(key, used);
      if (used.kind === 'dataSet' || key !== used.id || this.#artefacts.has(used.id)) continue;
      this.#artefacts.set(used.id, used.kind === 'case' ? { kind: 'case', id: used.id, content: used.content } : { kind: 'shared', id: used.id, content: used.content });
      this.#versions.set(used.id, used.version);
    }
  }
}
