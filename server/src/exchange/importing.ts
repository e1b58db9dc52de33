import { artefactId, type RequirementId } from '@caderno/core/artefacts';
import type { RequirementContent } from '@caderno/core/basis';
import { addedContent, at, broughtBackBy, changedContent, conflictKey, entriesOf, error, guessMapping, inModulesAsSpelled, isOwnDocument, mostTelling, planImport, sourceNameOf, type Entries, type Entry, type FileProblem, type ImportPlan, type Mapping, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import type { OwnField } from '@caderno/core/fields';
import { KIND_SCHEMA, LIMITS, MOST_PREVIEWED, placedIssues, type ImportDraft, type ImportPreview, type ProjectSettings } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { inTransaction, selectRows, type UnitOfWork } from '../database/index.ts';
import type { Files } from '../files/index.ts';
import { readModules, readSettings } from '../projects/index.ts';
import { existingRequirements, type StoredRequirement } from './existing.ts';
import { hereAlready } from './hereAlready.ts';
import { documentOf } from './decoded.ts';
import { findFile, type KeptFile } from './importFile.ts';
import { listSources, type ImportSource } from './importSource.ts';

const FIELD_LIMITS = { title: LIMITS.title, name: LIMITS.name, text: LIMITS.text, relations: LIMITS.links };

/** What a file holds, and how its columns would be matched: as remembered, or guessed. */
export async function describeFile(db: Sequelize, files: Files, projectId: string, id: string, reading: ReadingOptions): Promise<ImportDraft> {
  const { file, sources, key, fields } = await inTransaction(db, async (work) => ({ file: await findFile(work, projectId, id), sources: await listSources(work, projectId), key: await projectKey(work, projectId), fields: await ownFieldsIn(work, projectId) }));
  const document = await documentOf(db, files, file, reading);
  const source = sourceNameOf(file.name);
  const remembered = isOwnDocument(document, key) ? allKnown(source, sources) : rememberedSource(sources, source, document);
  return {
    ...described(file, document, reading),
    sections: document.records.filter((r) => r.section !== undefined).length,
    sources: sources.map((s) => s.name),
    mapping: { ...guessMapping(document, key, source, fields, remembered?.mapping ?? null) },
    remembered: remembered !== null && !isOwnDocument(document, key),
  };
}

/** What a file holds, whatever it is read for. */
export function described({ id, name }: KeptFile, document: SourceDocument, reading: ReadingOptions): Pick<ImportDraft, 'id' | 'name' | 'format' | 'columns' | 'records' | 'sheets' | 'names' | 'reading'> {
  const { format, columns, records, sheets, names } = document;
  return {
    id, name, format, reading,
    columns: columns.map((column, i) => ({ name: column, examples: examplesOf(document, i) })),
    records: records.length,
    sheets: [...sheets],
    names: names === undefined ? null : { header: names.header, rows: [...names.rows] },
  };
}

/** A file that the project wrote has the columns of all its sources. */
function allKnown(name: string, sources: readonly ImportSource[]): Pick<ImportSource, 'name' | 'mapping'> {
  const columns = Object.fromEntries(sources.filter((s) => s.types !== null).flatMap((s) => Object.entries(s.mapping.columns)).filter(([, target]) => target !== 'id' && target !== 'parent' && target !== 'level'));
  return { name, mapping: { source: name, columns } };
}

const MOST_EXAMPLES = 3;

/** The first values of a column. */
function examplesOf(document: SourceDocument, column: number): string[] {
  const examples = new Set<string>();
  for (const record of document.records.slice(0, 50)) {
    const cell = (record.cells[column] ?? '').replaceAll(/\s+/g, ' ').trim().slice(0, 80);
    if (cell !== '') examples.add(cell);
    if (examples.size === MOST_EXAMPLES) break;
  }
  return [...examples];
}

/** The source of this name, or else one whose columns are exactly these: files get new names from week to week. */
export function rememberedSource<S extends { readonly name: string; readonly mapping: { readonly columns: Readonly<Record<string, string>> } }>(sources: readonly S[], name: string, document: SourceDocument): S | null {
  const named = sources.find((s) => s.name === name);
  if (named !== undefined) return named;
  const columns = [...document.columns].sort().join('\n');
  return sources.find((s) => document.format !== 'markdown' && Object.keys(s.mapping.columns).sort().join('\n') === columns) ?? null;
}

/** The mapping a person would take as offered, for a file that is not kept. */
export async function guessedMapping(work: UnitOfWork, projectId: string, name: string, document: SourceDocument): Promise<Mapping> {
  return guessMapping(document, await projectKey(work, projectId), sourceNameOf(name), await ownFieldsIn(work, projectId), null);
}

/** What of a project files are read for: its fields, and its priorities. */
export type ReadFor = Pick<ProjectSettings, 'fields' | 'priorities'>;

export async function readFor(work: UnitOfWork, projectId: string): Promise<ReadFor> {
  return (await readSettings(work, projectId)).settings;
}

/** The fields the project has made for itself. */
export async function ownFieldsIn(work: UnitOfWork, projectId: string): Promise<readonly OwnField[]> {
  return (await readSettings(work, projectId)).settings.fields;
}

const projectKeyRow = z.object({ key: z.string() });

export async function projectKey(work: UnitOfWork, projectId: string): Promise<string> {
  const [project] = await selectRows(work, projectKeyRow, 'SELECT key FROM project WHERE id = $1', [projectId]);
  if (project === undefined) throw new Error('An import belongs to a project: expected one, got none');
  return project.key;
}

/** Everything an import needs to know before it writes. */
export interface Planned {
  readonly document: SourceDocument;
  readonly read: Entries;
  readonly existing: readonly StoredRequirement[];
  readonly plan: ImportPlan;
  /** The fields of the project's own. */
  readonly fields: readonly OwnField[];
}

/** A file that has been read: what it holds under a mapping. */
export interface ReadEntries {
  readonly name: string;
  readonly source: string;
  readonly document: SourceDocument;
  readonly read: Entries;
  readonly fields: readonly OwnField[];
}

/** What a decoded file says under a mapping, which may take long; nothing of the database is needed for it. */
export function readEntries(name: string, document: SourceDocument, mapping: Mapping, { fields, priorities }: ReadFor): ReadEntries {
  return { name, source: mapping.source, document, read: entriesOf(document, mapping, FIELD_LIMITS, fields, priorities), fields };
}

/** What the entries of a file would do to the project as it is now. */
export async function planEntries(work: UnitOfWork, projectId: string, { source, document, read: said, fields }: ReadEntries): Promise<Planned> {
  const read = { ...said, entries: inModulesAsSpelled(said.entries, await readModules(work, projectId)) };
  const existing = await existingRequirements(work, projectId, source, read.entries, fields);
  const plan = planImport(source, read.entries, existing, fields, broughtBackBy(document.format));
  const problems = unreadableResults(source, plan, existing, fields);
  if (problems.size === 0) return { document, read, existing, plan, fields };
  // A record that would leave a requirement nobody can read is not taken in; the preview says why.
  const stays = ({ entry }: { readonly entry: Entry }): boolean => !problems.has(entry);
  return { document, read: { entries: read.entries.filter((e) => !problems.has(e)), problems: [...read.problems, ...problems.values()] }, existing, fields, plan: { ...plan, added: plan.added.filter(stays), changed: plan.changed.filter(stays) } };
}

/** What each entry would make of its requirement, checked before anything is written, whichever side is chosen in conflicts. */
function unreadableResults(source: string, plan: ImportPlan, existing: readonly StoredRequirement[], fields: readonly OwnField[]): Map<Entry, FileProblem> {
  const byId = new Map(existing.map((e) => [e.id, e]));
  const problems = new Map<Entry, FileProblem>();
  const check = (entry: Entry, content: RequirementContent): void => {
    const read = KIND_SCHEMA.requirement.content.safeParse(content);
    const [first] = read.success ? [] : placedIssues(read.error);
    if (first !== undefined) problems.set(entry, error({ code: 'content_refused', field: first.path, reason: first.message }, at(entry.line)));
  };
  for (const { entry } of plan.added) check(entry, addedContent(source, entry, fields, anyRequirement));
  for (const change of plan.changed) {
    const before = byId.get(change.id);
    const theirs = new Map(change.conflicts.map(({ field }) => [conflictKey(change.id, field), 'theirs' as const]));
    if (before !== undefined) check(change.entry, changedContent(before.content, change, before.base, theirs, fields, anyRequirement));
  }
  return problems;
}

/** Which requirement a relation leads to is settled only when all have their numbers; whether the content can be read does not depend on it. */
const anyRequirement = (): RequirementId => artefactId('requirement', 1);

const LONGEST_PREVIEWED_TEXT = 2_000;

/** What an import would do, with every problem; of long lists the first. */
export async function previewFile(db: Sequelize, files: Files, projectId: string, id: string, mapping: Mapping, reading: ReadingOptions): Promise<ImportPreview> {
  const { file, project } = await inTransaction(db, async (work) => ({ file: await findFile(work, projectId, id), project: await readFor(work, projectId) }));
  const entries = readEntries(file.name, await documentOf(db, files, file, reading), mapping, project);
  const { plan, read, here } = await inTransaction(db, async (work) => {
    const planned = await planEntries(work, projectId, entries);
    return { ...planned, here: await hereAlready(work, projectId, mapping.source, planned.plan.added.map((a) => a.entry)) };
  });
  const inConflict = plan.changed.filter((c) => c.conflicts.length > 0);
  const others = plan.changed.filter((c) => c.conflicts.length === 0).slice(0, MOST_PREVIEWED);
  const errors = read.problems.filter((p) => p.severity === 'error').length;
  return {
    here,
    counts: {
      added: plan.added.length,
      changed: plan.changed.length,
      same: plan.same.length,
      gone: plan.gone.length,
      conflicts: inConflict.reduce((n, c) => n + c.conflicts.length, 0),
      errors,
      warnings: read.problems.length - errors,
    },
    added: plan.added.slice(0, MOST_PREVIEWED).map(({ entry }) => ({ line: entry.line, key: entry.key, title: entry.fields.title ?? '', text: (entry.fields.text ?? '').slice(0, LONGEST_PREVIEWED_TEXT), parent: entry.parent ?? null })),
    changed: [...inConflict, ...others].map(({ entry, id: requirement, title, fields, conflicts, moves, relations }) => ({ id: requirement, title, line: entry.line, fields: [...fields], conflicts: [...conflicts], moves, relations })),
    gone: [...plan.gone],
    problems: mostTelling(read.problems),
  };
}

