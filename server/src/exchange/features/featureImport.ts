import { randomUUID } from 'node:crypto';
import { artefactId, type FeatureId } from '@caderno/core/artefacts';
import { openFeatureConflicts, outlineOf, planFeatures, readFeature, textOf, type FeatureChoices, type FeatureHere, type FeaturePlan, type PlannedFeature } from '@caderno/core/scenarios';
import type { Json, Side } from '@caderno/core/versions';
import { MOST_PREVIEWED, type FeaturesDraft } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { changeOfRetry, contentOrRefused, insertArtefacts, lockProject, reserveNumbers, rowsOfIds, writeJournalEntry, writeVersions, type Actor, type JournalEntryPart, type NewArtefactRow, type UndoPlan } from '../../artefacts/index.ts';
import { execute, inSnapshot, inTransaction, selectRows, type ArtefactRow, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import type { Files } from '../../files/index.ts';
import { bytesOf, findFile } from '../importFile.ts';
import { readFeatureFiles, type ReadFeatures } from './featureFiles.ts';

const newId = (): string => randomUUID().slice(0, 8);

const hereRow = z.object({ number: z.number(), version: z.number(), schema: z.number(), content: z.unknown(), brought: z.string().nullable() });

async function featuresHere(work: UnitOfWork, projectId: string): Promise<FeatureHere[]> {
  const rows = await selectRows(
    work,
    hereRow,
    `SELECT a.number, v.version, v.schema, v.content, i.base->'fields'->>'text' AS brought
     FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head LEFT JOIN imported i ON i.artefact_id = a.id
     WHERE a.project_id = $1 AND a.kind = 'feature' AND a.deleted_at IS NULL ORDER BY a.number`,
    [projectId],
  );
  return rows.map((row) => ({ id: artefactId('feature', row.number), content: contentOrRefused('feature', row), brought: row.brought }));
}

/** What files of features that wait would do; of long lists the first. */
export async function previewFeatures(db: Sequelize, files: Files, projectId: string, id: string): Promise<FeaturesDraft> {
  const file = await inTransaction(db, (work) => findFile(work, projectId, id));
  const read = readFeatureFiles(await bytesOf(files, file));
  const here = await inSnapshot(db, (work) => featuresHere(work, projectId));
  const { planned, missing } = planFeatures(read.files, here, newId);
  const of = <K extends PlannedFeature['kind']>(kind: K) => planned.flatMap((p) => (p.kind === kind ? [p as Extract<PlannedFeature, { kind: K }>] : []));
  const added = of('added').map(({ content }) => ({ path: content.path, title: content.title, scenarios: outlineOf(content).scenarios.filter((s) => s.kind === 'scenario').length }));
  const changed = of('changed').map(({ id: which, before, content, conflicts }) => ({
    id: which, title: content.title, path: content.path, from: before.path === content.path ? null : before.path,
    both: conflicts.slice(0, MOST_PLACES).map((c) => ({ path: c.path, mine: told(c.mine), theirs: told(c.theirs) })),
  }));
  const problems = read.files.flatMap(({ path, text }) => readFeature(text).problems.map((problem) => ({ path, ...problem, found: problem.found.slice(0, LONGEST_FOUND).toWellFormed() })));
  const inConflict = changed.filter((c) => c.both.length > 0);
  const paths = new Map(here.map((h) => [h.id, h.content.path]));
  return {
    id, name: file.name,
    counts: { added: added.length, changed: changed.length, same: of('same').length, missing: missing.length, problems: problems.length, left: read.left.length, scenarios: added.reduce((sum, a) => sum + a.scenarios, 0) },
    added: added.slice(0, MOST_PREVIEWED),
    changed: [...inConflict, ...changed.filter((c) => c.both.length === 0).slice(0, MOST_PREVIEWED)],
    conflicts: inConflict.length,
    missing: missing.slice(0, MOST_PREVIEWED).map((which) => ({ id: which, path: paths.get(which) ?? '' })),
    problems: problems.slice(0, MOST_PREVIEWED),
    left: read.left.slice(0, MOST_PREVIEWED),
  };
}

/** Places of one feature that a preview shows, and letters of each side. */
const MOST_PLACES = 50;
const LONGEST_TOLD = 2_000;
const LONGEST_FOUND = 200;

/** One side of a conflict, to be read: the text of a line or of a part; null: it is not there. */
function told(value: Json | undefined): string | null {
  if (value === undefined) return null;
  return (typeof value === 'string' ? value.trim() : (linesIn(value) ?? JSON.stringify(value))).slice(0, LONGEST_TOLD).toWellFormed();
}

const partShape = z.object({ lines: z.array(z.object({ text: z.string() })) });

function linesIn(value: Json): string | null {
  const part = partShape.safeParse(value);
  return part.success ? part.data.lines.map((l) => l.text).join('\n') : null;
}

export interface FeaturesOrder {
  readonly choices: Readonly<Record<string, Side>>;
}

type OnProgress = (done: number, total: number) => Promise<void>;

/** Brings in files of features as one change: everything or nothing. Answers the id of the change. */
export async function importFeatures(work: UnitOfWork, actor: Actor, { files }: Pick<ReadFeatures, 'files'>, source: string, order: FeaturesOrder, onProgress: OnProgress = () => Promise.resolve()): Promise<string> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const choices: FeatureChoices = new Map(Object.entries(order.choices) as [FeatureId, Side][]);
  const plan = planFeatures(files, await featuresHere(work, actor.projectId), newId, choices);
  const open = openFeatureConflicts(plan, choices);
  if (open.length > 0) throw new DomainError({ code: 'import_conflicts_open', count: open.length });
  const [added, changed] = [plan.planned.filter((p) => p.kind === 'added').length, plan.planned.filter((p) => p.kind === 'changed').length];
  if (added + changed === 0) throw new DomainError({ code: 'import_changes_nothing' });
  const change = randomUUID();
  const parts = await writePlan(work, actor, change, plan, (done) => onProgress(done, added + changed));
  await writeJournalEntry(work, actor, { action: 'import', parts, detail: source, note: `${added} added, ${changed} changed` }, change);
  return change;
}

async function writePlan(work: UnitOfWork, actor: Actor, change: string, { planned }: FeaturePlan, onWritten: (done: number) => Promise<void>): Promise<JournalEntryPart[]> {
  const added = planned.flatMap((p) => (p.kind === 'added' ? [p] : []));
  const known = planned.flatMap((p) => (p.kind === 'added' ? [] : [p]));
  const first = added.length === 0 ? 0 : await reserveNumbers(work, actor.projectId, 'feature', added.length);
  const made = added.map(({ content }, i): NewArtefactRow => ({ number: first + i, value: { kind: 'feature', content }, parent: null, position: 0 }));
  const inserted = made.length === 0 ? { rows: [], parts: [] } : await insertArtefacts(work, actor, change, made, onWritten);
  const { rows } = await rowsOfIds(work, actor.projectId, known.map((p) => p.id));
  const byId = new Map(rows.map((row) => [artefactId('feature', row.number), row]));
  const saves = known.flatMap((p) => {
    const row = byId.get(p.id);
    return row === undefined || p.kind === 'same' ? [] : [{ row, value: { kind: 'feature' as const, content: p.content }, head: { kind: 'feature' as const, content: p.before } }];
  });
  const written = await writeVersions(work, actor, change, saves, '', (done) => onWritten(made.length + done));
  const remembered = await remember(work, [
    ...inserted.rows.map((row, i) => ({ row, text: added[i]?.file.text ?? '', isNew: true })),
    ...known.flatMap((p) => {
      const row = byId.get(p.id);
      return row === undefined ? [] : [{ row, text: p.file.text, isNew: false }];
    }),
  ]);
  return [...inserted.parts, ...written, ...remembered];
}

interface Brought {
  readonly row: ArtefactRow;
  readonly text: string;
  readonly isNew: boolean;
}

const beforeRow = z.object({ id: z.string(), text: z.string().nullable() });

/** What the next files are told apart from; taken back with the import. What is made is taken away whole by an undo. */
async function remember(work: UnitOfWork, brought: readonly Brought[]): Promise<JournalEntryPart[]> {
  const known = await selectRows(work, beforeRow, `SELECT artefact_id AS id, base->'fields'->>'text' AS text FROM imported WHERE artefact_id = ANY($1)`, [brought.map((b) => b.row.id)]);
  const before = new Map(known.map((k) => [k.id, k.text]));
  const other = brought.filter(({ row, text }) => before.get(row.id) !== text);
  await writeBases(work, other.map(({ row, text }) => ({ id: row.id, text })));
  return other.flatMap(({ row, text, isNew }) => {
    const was = before.get(row.id) ?? null;
    return isNew ? [] : [{ artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'imported', from: was === null ? null : baseOf(was), to: baseOf(text) } satisfies UndoPlan }];
  });
}

async function writeBases(work: UnitOfWork, bases: readonly { readonly id: string; readonly text: string }[]): Promise<void> {
  await execute(
    work,
    `INSERT INTO imported (artefact_id, base) SELECT r.id, r.base FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, base jsonb) ON CONFLICT (artefact_id) DO UPDATE SET base = excluded.base`,
    [JSON.stringify(bases.map(({ id, text }) => ({ id, base: baseOf(text) })))],
  );
}

/**
 * Notes of the files that stand in the code as they stand here: what comes in next is told apart from that. It is what
 * the project knows of the code, not a change of its design, and stands in no journal.
 */
export async function rememberFeatures(work: UnitOfWork, projectId: string, { files }: Pick<ReadFeatures, 'files'>): Promise<number> {
  await lockProject(work, projectId);
  const texts = new Map(files.map((f) => [f.path, f.text]));
  const same = (await featuresHere(work, projectId)).filter(({ content }) => texts.get(content.path) === textOf(content));
  const { rows } = await rowsOfIds(work, projectId, same.map((f) => f.id));
  const byId = new Map(rows.map((row) => [artefactId('feature', row.number), row.id]));
  await writeBases(work, same.flatMap(({ id, content }) => {
    const row = byId.get(id);
    return row === undefined ? [] : [{ id: row, text: textOf(content) }];
  }));
  return same.length;
}

function baseOf(text: string) {
  return { fields: { text }, relations: [], facts: '' };
}
