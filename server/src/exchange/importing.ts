import { GUESS_ALL, entriesOf, guessMapping, mostTelling, planImport, readFile, sourceNameOf, type Entries, type ImportPlan, type Mapping, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import { LIMITS, MOST_PREVIEWED, type ImportDraft, type ImportPreview } from '@caderno/contract';
import { selectRows, type Work } from '../database/index.ts';
import { readStoriesFile, STORIES_FILE } from '../tracker/index.ts';
import { existingRequirements, type StoredRequirement } from './existing.ts';
import { listSources, readKeptFile, type ImportSource, type StoredFile } from './importFile.ts';

const FIELD_LIMITS = { title: LIMITS.title, name: LIMITS.name, text: LIMITS.text };

/** Reads a kept file; the stories of a tracker are kept as a file too. */
export async function readDocument(file: StoredFile, reading: ReadingOptions): Promise<SourceDocument> {
  return file.name === STORIES_FILE ? readStoriesFile(file.bytes) : readFile(file.name, file.bytes, reading);
}

/** What a file holds, and how its columns would be matched: as remembered, or guessed. */
export async function describeFile(work: Work, projectId: string, id: string, reading: ReadingOptions): Promise<ImportDraft> {
  const file = await readKeptFile(work, projectId, id);
  const document = await readDocument(file, reading);
  const source = sourceNameOf(file.name);
  const remembered = rememberedSource(await listSources(work, projectId), source, document);
  return {
    id,
    name: file.name,
    format: document.format,
    columns: document.columns.map((name, i) => ({ name, examples: examplesOf(document, i) })),
    records: document.records.length,
    sheets: [...document.sheets],
    mapping: { ...guessMapping(document, await projectKey(work, projectId), source, remembered?.mapping ?? null) },
    reading,
    remembered: remembered !== null,
  };
}

const MOST_EXAMPLES = 3;

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
function rememberedSource(sources: readonly ImportSource[], name: string, document: SourceDocument): ImportSource | null {
  const named = sources.find((s) => s.name === name);
  if (named !== undefined) return named;
  const columns = [...document.columns].sort().join('\n');
  return sources.find((s) => document.format !== 'markdown' && Object.keys(s.mapping.columns).sort().join('\n') === columns) ?? null;
}

/** The mapping a person would take as offered, for a file that is not kept. */
export async function guessedMapping(work: Work, projectId: string, file: StoredFile): Promise<Mapping> {
  const document = await readDocument(file, GUESS_ALL);
  return guessMapping(document, await projectKey(work, projectId), sourceNameOf(file.name), null);
}

export async function projectKey(work: Work, projectId: string): Promise<string> {
  const [project] = await selectRows<{ key: string }>(work, 'SELECT key FROM project WHERE id = $1', [projectId]);
  if (project === undefined) throw new Error('An import belongs to a project: expected one, got none');
  return project.key;
}

/** Everything an import needs to know before it writes. */
export interface Planned {
  readonly document: SourceDocument;
  readonly read: Entries;
  readonly existing: readonly StoredRequirement[];
  readonly plan: ImportPlan;
}

export async function planFile(work: Work, projectId: string, file: StoredFile, mapping: Mapping, reading: ReadingOptions): Promise<Planned> {
  const document = await readDocument(file, reading);
  const read = entriesOf(document, mapping, FIELD_LIMITS);
  const existing = await existingRequirements(work, projectId, mapping.source, read.entries);
  return { document, read, existing, plan: planImport(mapping.source, read.entries, existing) };
}

const LONGEST_PREVIEWED_TEXT = 2_000;

/** What an import would do, with every problem; of long lists the first. */
export async function previewFile(work: Work, projectId: string, id: string, mapping: Mapping, reading: ReadingOptions): Promise<ImportPreview> {
  const { plan, read } = await planFile(work, projectId, await readKeptFile(work, projectId, id), mapping, reading);
  const inConflict = plan.changed.filter((c) => c.conflicts.length > 0);
  const others = plan.changed.filter((c) => c.conflicts.length === 0).slice(0, MOST_PREVIEWED);
  const errors = read.problems.filter((p) => p.severity === 'error').length;
  return {
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

