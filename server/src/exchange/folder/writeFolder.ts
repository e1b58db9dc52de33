import { createHash } from 'node:crypto';
import { ARTEFACT_KINDS, ARTEFACT_STATES, artefactId, type ArtefactId, type RequirementId } from '@caderno/core/artefacts';
import { attachmentId, type Attachment } from '@caderno/core/attachments';
import { baselineNumber } from '@caderno/core/baselines';
import { COVERAGE_FILE, MANIFEST, SETTINGS_FILE, artefactPath, attachmentPath, blockText, foldersOf, versionPath } from '@caderno/core/designFolder';
import { versionsNamedIn } from '@caderno/core/kinds';
import { asJson, sameJson } from '@caderno/core/versions';
import { FOLDER_FORMAT, FOLDER_VERSION, LIMITS, readStoredSettings, schemaVersionOf, type FolderArtefact, type FolderManifest, type FolderVersion, type KindAndContent } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { attachmentsOf, kindAndContentOrBroken } from '../../artefacts/index.ts';
import { inTransaction, selectRows, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { ZipFile, type Files } from '../../files/index.ts';

/** Contents that are written at a time; as many are read meanwhile. */
const AT_A_TIME = 500;

const headRow = z.object({
  rowId: z.string(), id: z.string(), key: z.string(), name: z.string(), number: z.number(), title: z.string(), note: z.string(), by: z.string(), at: z.date(), part: z.string(), seal: z.string(), settings: z.unknown(), coverage: z.looseObject({}).nullable(),
});
const itemRow = z.object({
  rowId: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), version: z.number(), meaningSince: z.number(), agreed: z.number().nullable(), state: z.enum(ARTEFACT_STATES), module: z.string(), under: z.number().nullable(), position: z.number(),
});
type Item = z.infer<typeof itemRow>;

/**
 * Writes all that a baseline holds as a zip of open files: one for each artefact, the earlier versions that are named
 * there, attached files, settings, coverage, and a manifest. What a baseline holds never changes, so that nothing is held
 * meanwhile, and the same baseline is always the same bytes.
 */
export async function writeFolder(db: Sequelize, files: Files, projectId: string, number: number, path: string): Promise<{ readonly name: string; readonly type: string }> {
  const { head, items } = await inTransaction(db, (work) => readBaseline(work, projectId, number));
  if (items.length > LIMITS.folderFiles) throw new DomainError({ code: 'folder_too_large', files: items.length, limit: LIMITS.folderFiles });
  const zip = new ZipFile(path);
  try {
    await writeInto(new Writing(db, zip, items), head, files);
  } catch (error) {
    zip.abandon();
    throw error;
  }
  return { name: `${head.key}-B-${head.number}.zip`, type: 'application/zip' };
}

async function writeInto(writing: Writing, head: z.infer<typeof headRow>, files: Files): Promise<void> {
  const { settings } = readStoredSettings(head.settings);
  await writing.text(SETTINGS_FILE, settings);
  if (head.coverage !== null) await writing.text(COVERAGE_FILE, head.coverage);
  await writing.artefacts();
  await writing.namedVersions();
  await writing.attachments(files);
  const manifest: FolderManifest = {
    format: FOLDER_FORMAT,
    version: FOLDER_VERSION,
    project: { id: head.id, key: head.key, name: head.name },
    baseline: { number: head.number, name: head.title, note: head.note, by: head.by, at: head.at.toISOString(), part: head.part, seal: head.seal },
    files: Object.fromEntries([...writing.hashes].sort(([a], [b]) => (a < b ? -1 : 1))),
  };
  await writing.end(manifest);
}

async function readBaseline(work: UnitOfWork, projectId: string, number: number): Promise<{ readonly head: z.infer<typeof headRow>; readonly items: readonly Item[] }> {
  const [head] = await selectRows(
    work,
    headRow,
    `SELECT b.id AS "rowId", project.id, project.key, project.name, b.number, b.name AS title, b.note, p.name AS by, b.at, b.part, b.seal, b.settings, b.coverage
     FROM baseline b JOIN project ON project.id = b.project_id JOIN person p ON p.id = b.taken_by WHERE b.project_id = $1 AND b.number = $2`,
    [projectId, baselineNumber(number)],
  );
  if (head === undefined) throw new DomainError({ code: 'baseline_unknown' });
  const items = await selectRows(
    work,
    itemRow,
    `SELECT i.artefact_id AS "rowId", a.kind, a.number, i.version, i.meaning_since AS "meaningSince", i.agreed_version AS agreed, i.state, i.module, above.number AS under, i.position
     FROM baseline_item i JOIN artefact a ON a.id = i.artefact_id LEFT JOIN artefact above ON above.id = i.parent_id
     WHERE i.baseline_id = $1 ORDER BY array_position($2::text[], a.kind), a.number`,
    [head.rowId, ARTEFACT_KINDS],
  );
  return { head, items };
}

const contentRow = z.object({ rowId: z.string(), version: z.number(), schema: z.number(), content: z.unknown() });
type StoredContent = z.infer<typeof contentRow>;

class Writing {
  readonly #db: Sequelize;
  readonly #zip: ZipFile;
  readonly #items: readonly Item[];
  readonly #byId: ReadonlyMap<ArtefactId, Item>;
  readonly #folders: ReadonlyMap<string, string>;
  /** By the path of each file. */
  readonly hashes = new Map<string, string>();
  readonly #named = new Map<ArtefactId, Set<number>>();
  readonly #attached = new Map<string, Attachment>();
  /** Where each artefact is, for its earlier versions to stand beside it. */
  readonly #folderOf = new Map<ArtefactId, string>();

  constructor(db: Sequelize, zip: ZipFile, items: readonly Item[]) {
    this.#db = db;
    this.#zip = zip;
    this.#items = items;
    this.#byId = new Map(items.map((item) => [artefactId(item.kind, item.number), item]));
    this.#folders = foldersOf(items.map((item) => item.module));
  }

  async text(path: string, value: object): Promise<void> {
    await this.#add(path, Buffer.from(blockText(value)));
  }

  async #add(path: string, bytes: Uint8Array): Promise<void> {
    this.hashes.set(path, createHash('sha256').update(bytes).digest('hex'));
    await this.#zip.add(path, bytes);
  }

  async artefacts(): Promise<void> {
    let next = this.#contentsFrom(0);
    for (let from = 0; from < this.#items.length; from += AT_A_TIME) {
      const contents = await next;
      // The database reads on while these are written; when that is given up nobody waits for what it read.
      next = this.#contentsFrom(from + AT_A_TIME);
      next.catch(() => undefined);
      for (const item of this.#items.slice(from, from + AT_A_TIME)) await this.#artefact(item, contents.get(`${item.rowId} ${item.version}`));
    }
  }

  async #contentsFrom(from: number): Promise<ReadonlyMap<string, StoredContent>> {
    const some = this.#items.slice(from, from + AT_A_TIME);
    return some.length === 0 ? new Map() : this.#contents(some.map(({ rowId, version }) => ({ id: rowId, version })));
  }

  async #artefact(item: Item, stored: StoredContent | undefined): Promise<void> {
    const id = artefactId(item.kind, item.number);
    const { schema, content, value } = this.#read(id, item.kind, stored);
    const folder = this.#folders.get(item.module === '' ? moduleOf(value, this.#byId) : item.module) ?? '';
    this.#folderOf.set(id, folder);
    for (const attachment of attachmentsOf(value)) this.#attached.set(attachment.id, attachment);
    if (item.agreed !== null) this.#name(id, item.agreed);
    const { kind, state, version, meaningSince, agreed, position } = item;
    const artefact: FolderArtefact = { id, kind, state, version, meaningSince, agreed, under: this.#above(item), position, schema, content };
    await this.text(artefactPath(folder, id), artefact);
  }

  /** What it stands below, as far as the baseline holds it. */
  #above({ under }: Item): RequirementId | null {
    const id = under === null ? null : artefactId('requirement', under);
    return id !== null && this.#byId.has(id) ? id : null;
  }

  #name(id: ArtefactId, version: number): void {
    this.#named.set(id, (this.#named.get(id) ?? new Set()).add(version));
  }

  /** A content as it is told, and what it names of others. @throws {DomainError} when it cannot be read: nobody is to take the rest for the whole. */
  #read(id: ArtefactId, kind: Item['kind'], stored: StoredContent | undefined): { readonly schema: number; readonly content: unknown; readonly value: KindAndContent } {
    const value = stored === undefined ? null : kindAndContentOrBroken(kind, stored.schema, stored.content);
    if (stored === undefined || value === null) throw new DomainError({ code: 'artefact_broken', id, version: stored?.version ?? 1 });
    for (const { id: named, version } of versionsNamedIn(value)) this.#name(named, version);
    // In the order of its schema, as long as that says exactly what is stored.
    return stored.schema === schemaVersionOf(kind) && sameJson(asJson(value.content), asJson(stored.content)) ? { schema: stored.schema, content: value.content, value } : { schema: stored.schema, content: stored.content, value };
  }

  /** Earlier versions that something names, and what those name in turn. */
  async namedVersions(): Promise<void> {
    const written = new Set<string>();
    const missing = () => [...this.#named].flatMap(([id, versions]) => {
      const item = this.#byId.get(id);
      return item === undefined ? [] : [...versions].flatMap((version) => (version < item.version && !written.has(`${id} ${version}`) ? [{ id, version, item }] : []));
    });
    for (let some = missing(); some.length > 0; some = missing()) {
      const contents = await this.#contents(some.map(({ item, version }) => ({ id: item.rowId, version })));
      for (const { id, version, item } of some) {
        written.add(`${id} ${version}`);
        const stored = contents.get(`${item.rowId} ${version}`);
        if (stored === undefined) continue;
        const { schema, content } = this.#read(id, item.kind, stored);
        const earlier: FolderVersion = { id, version, schema, content };
        await this.text(versionPath(this.#folderOf.get(id) ?? '', id, version), earlier);
      }
    }
  }

  async attachments(files: Files): Promise<void> {
    for (const [id, { name }] of [...this.#attached].sort(([a], [b]) => (a < b ? -1 : 1))) await this.#add(attachmentPath(id, name), await files.readWhole(attachmentId(id)));
  }

  async end(manifest: FolderManifest): Promise<void> {
    await this.#zip.add(MANIFEST, Buffer.from(blockText(manifest)));
    await this.#zip.end();
  }

  async #contents(wanted: readonly { readonly id: string; readonly version: number }[]): Promise<Map<string, StoredContent>> {
    const rows = await inTransaction(this.#db, (work) =>
      selectRows(work, contentRow, `SELECT v.artefact_id AS "rowId", v.version, v.schema, v.content FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, version int) JOIN artefact_version v ON v.artefact_id = r.id AND v.version = r.version`, [JSON.stringify(wanted)]),
    );
    return new Map(rows.map((row) => [`${row.rowId} ${row.version}`, row]));
  }
}

/** What has no module of its own stands with the requirement that it comes from. */
function moduleOf(value: KindAndContent, byId: ReadonlyMap<ArtefactId, Item>): string {
  const [first] = value.kind === 'condition' ? value.content.requirements : [];
  return first === undefined ? '' : (byId.get(first.id)?.module ?? '');
}
