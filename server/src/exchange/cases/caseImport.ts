import { randomUUID } from 'node:crypto';
import { artefactId, type CaseId, type RequirementId } from '@caderno/core/artefacts';
import { addedCase, caseBaseOf, caseEntriesOf, changedCase, guessCaseMapping, openCaseConflicts, planCases, type CaseBase, type CaseEntries, type CaseEntry, type CaseFileProject, type CaseMapping, type CasePlan } from '@caderno/core/caseFiles';
import { parametersIn, type CaseContent } from '@caderno/core/cases';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import { at, error, inModulesAsSpelled, isOwnDocument, mostTelling, sourceNameOf, type ConflictChoice, type FileProblem, type ReadingOptions, type SourceDocument } from '@caderno/core/exchange';
import { KIND_SCHEMA, LIMITS, MOST_PREVIEWED, caseMappingSchema, placedIssues, type CaseDraft, type CasePreview } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { changeOfRetry, insertArtefacts, lockProject, reserveNumbers, writeJournalEntry, writeVersions, type Actor, type JournalEntryPart, type NewArtefactRow, type UndoPlan } from '../../artefacts/index.ts';
import { execute, inTransaction, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../../database/index.ts';
import { DomainError } from '../../domainError.ts';
import { documentOf } from '../decoded.ts';
import { findFile } from '../importFile.ts';
import { described, projectKey, rememberedSource } from '../importing.ts';
import type { Files } from '../../files/index.ts';
import { readModules } from '../../projects/index.ts';
import { readCaseNames, type CaseNames } from './caseNames.ts';
import { existingCases, type StoredCase } from './existingCases.ts';

const CASE_LIMITS = { title: LIMITS.title, name: LIMITS.name, text: LIMITS.text, line: LIMITS.line, steps: LIMITS.steps };

const sourceRow = z.object({ name: z.string(), mapping: caseMappingSchema });

async function listCaseSources(work: UnitOfWork, projectId: string): Promise<z.infer<typeof sourceRow>[]> {
  return selectRows(work, sourceRow, `SELECT name, mapping FROM import_source WHERE project_id = $1 AND kind = 'case' ORDER BY name`, [projectId]);
}

/** What a file of cases holds, and how its columns would be matched: as remembered, or guessed. */
export async function describeCases(db: Sequelize, files: Files, projectId: string, id: string, reading: ReadingOptions): Promise<CaseDraft> {
  const { file, sources, key, names } = await inTransaction(db, async (work) => ({ file: await findFile(work, projectId, id), sources: await listCaseSources(work, projectId), key: await projectKey(work, projectId), names: await readCaseNames(work, projectId) }));
  const document = await documentOf(db, files, file, reading);
  const source = sourceNameOf(file.name);
  const remembered = isOwnDocument(document, key) ? null : rememberedSource(sources, source, document);
  const guessed = guessCaseMapping(document, key, source, names.project.fields, remembered?.mapping ?? null);
  // One sheet of several is a part of the whole, and so named.
  const sheet = document.sheets.length > 1 && !Object.values(guessed.columns).includes('module') ? (reading.sheet ?? document.sheets[0] ?? '') : guessed.module;
  return {
    ...described(file, document, reading),
    sources: sources.map((s) => s.name),
    mapping: { ...guessed, module: sheet.slice(0, LIMITS.name) },
    remembered: remembered !== null,
  };
}

/** Everything an import needs to know before it writes. */
interface Planned {
  readonly read: CaseEntries;
  readonly existing: readonly StoredCase[];
  readonly plan: CasePlan;
  readonly known: CaseNames;
  /** Requirements named in the file that nobody has analysed. */
  readonly bare: readonly RequirementId[];
}

async function planFile(work: UnitOfWork, projectId: string, document: SourceDocument, mapping: CaseMapping): Promise<Planned> {
  const known = await readCaseNames(work, projectId);
  const said = caseEntriesOf(document, mapping, known.names, CASE_LIMITS);
  const read = { ...said, entries: inModulesAsSpelled(said.entries, await readModules(work, projectId)) };
  const existing = await existingCases(work, projectId, mapping.source, read.entries, known.project.fields);
  const plan = planCases(read.entries, existing, known.project);
  const bare = [...new Set(read.entries.flatMap((e) => e.requirements))].filter((id) => known.project.conditionsOf(id).length === 0);
  const problems = unreadableResults(plan, existing, known.project);
  const stays = (entry: CaseEntry): boolean => !problems.has(entry);
  return {
    known, existing, bare,
    read: { entries: read.entries.filter(stays), problems: [...read.problems, ...problems.values()] },
    plan: { ...plan, added: plan.added.filter(stays), changed: plan.changed.filter((c) => stays(c.entry)) },
  };
}

/** What each entry would make of its case, checked before anything is written. */
function unreadableResults(plan: CasePlan, existing: readonly StoredCase[], project: CaseFileProject): Map<CaseEntry, FileProblem> {
  const byId = new Map(existing.map((e) => [e.id, e]));
  const problems = new Map<CaseEntry, FileProblem>();
  const check = (entry: CaseEntry, content: CaseContent): void => {
    const read = KIND_SCHEMA.case.content.safeParse(content);
    const [first] = read.success ? [] : placedIssues(read.error);
    if (first !== undefined) problems.set(entry, error({ code: 'content_refused', field: first.path, reason: first.message }, at(entry.line)));
  };
  for (const entry of plan.added) if (!isUsual(entry)) check(entry, addedCase(entry, project));
  for (const change of plan.changed) {
    const before = byId.get(change.id);
    const theirs = new Map(change.conflicts.map(({ field }) => [`${change.id} ${field}`, 'theirs' as const]));
    if (before !== undefined) check(change.entry, changedCase(before.content, change, theirs, project));
  }
  return problems;
}

/** Texts and steps were measured when they were read; what else has a limit can only be beyond it where there is very much of it. */
function isUsual({ fields, steps, conditions, requirements }: CaseEntry): boolean {
  const brackets = (steps ?? []).reduce((n, step) => n + (step.kind === 'plain' ? step.action.split('<').length + step.expected.split('<').length : step.given.length), 0);
  return brackets - 2 * (steps?.length ?? 0) <= FEW && (fields.tags ?? '').length <= LIMITS.name && (fields.tags ?? '').split(/[,;\n]/).length <= FEW && (conditions?.length ?? 0) + requirements.length <= FEW && !(fields.objective ?? '').includes('<') && !(fields.preconditions ?? '').includes('<');
}

const FEW = 40;
const LONGEST_PREVIEWED = 4_000;
const titleRow = z.object({ count: z.number() });

/** What an import would do, with every problem; of long lists the first. */
export async function previewCases(db: Sequelize, files: Files, projectId: string, id: string, mapping: CaseMapping, reading: ReadingOptions): Promise<CasePreview> {
  const file = await inTransaction(db, (work) => findFile(work, projectId, id));
  const document = await documentOf(db, files, file, reading);
  const { plan, read, existing, bare, titles } = await inTransaction(db, async (work) => {
    const planned = await planFile(work, projectId, document, mapping);
    const [here] = await selectRows(work, titleRow, `SELECT count(*)::int AS count FROM artefact WHERE project_id = $1 AND kind = 'case' AND deleted_at IS NULL AND state <> 'withdrawn' AND lower(trim(title)) = ANY($2)`, [projectId, planned.plan.added.map((e) => (e.fields.title ?? '').trim().toLowerCase())]);
    return { ...planned, titles: here?.count ?? 0 };
  });
  const title = new Map(existing.map((e) => [e.id, e.content.title]));
  const inConflict = plan.changed.filter((c) => c.conflicts.length > 0);
  const others = plan.changed.filter((c) => c.conflicts.length === 0).slice(0, MOST_PREVIEWED);
  const errors = read.problems.filter((p) => p.severity === 'error').length;
  const shortened = (text: string): string => text.slice(0, LONGEST_PREVIEWED).toWellFormed();
  return {
    counts: {
      added: plan.added.length, changed: plan.changed.length, same: plan.same.length, gone: plan.gone.length, conflicts: inConflict.reduce((n, c) => n + c.conflicts.length, 0), errors, warnings: read.problems.length - errors,
      steps: plan.added.reduce((n, e) => n + (e.steps?.length ?? 0), 0), conditions: bare.length, titles,
    },
    added: plan.added.slice(0, MOST_PREVIEWED).map(({ line, fields, steps }) => {
      const texts = (steps ?? []).flatMap((s) => (s.kind === 'plain' ? [s.action, s.expected] : []));
      return { line, title: fields.title ?? '', module: fields.module ?? '', steps: steps?.length ?? 0, firstStep: shortened(texts[0] ?? ''), parameters: [...new Set(texts.flatMap(parametersIn))].slice(0, 20) };
    }),
    changed: [...inConflict, ...others].map((change) => ({
      id: change.id, title: title.get(change.id) ?? '', line: change.entry.line,
      fields: change.fields.map((f) => ({ field: f.field, from: shortened(f.from), to: shortened(f.to) })),
      conflicts: change.conflicts.map((f) => ({ field: f.field, base: shortened(f.base), mine: shortened(f.mine), theirs: shortened(f.theirs) })),
    })),
    gone: [...plan.gone],
    problems: mostTelling(read.problems),
  };
}

export interface CaseOrder {
  readonly mapping: CaseMapping;
  readonly reading: ReadingOptions;
  readonly choices: Readonly<Record<string, ConflictChoice>>;
}

type OnProgress = (done: number, total: number) => Promise<void>;

/** Imports the cases of a document as one change: everything or nothing. Answers the id of the change. */
export async function importCases(work: UnitOfWork, actor: Actor, document: SourceDocument, { mapping, choices }: Omit<CaseOrder, 'reading'>, onProgress: OnProgress = () => Promise.resolve()): Promise<string> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return earlier;
  const first = await planFile(work, actor.projectId, document, mapping);
  const chosen = new Map(Object.entries(choices));
  const open = openCaseConflicts(first.plan, chosen);
  if (open.length > 0) throw new DomainError({ code: 'import_conflicts_open', count: open.length });
  if (first.read.entries.length === 0) throw new DomainError({ code: 'import_unreadable', errors: first.read.problems.filter((p) => p.severity === 'error').length });
  if (first.plan.added.length + first.plan.changed.length === 0) throw new DomainError({ code: 'import_changes_nothing' });
  const change = randomUUID();
  const made = await analyse(work, actor, change, first);
  const { plan, existing, known } = made.length === 0 ? first : await planFile(work, actor.projectId, document, mapping);
  const total = plan.added.length + plan.changed.length;
  const added = await addCases(work, actor, change, plan.added, known.project, (done) => onProgress(done, total));
  const byId = new Map(existing.map((e) => [e.id, e]));
  const rows = await rowsOf(work, actor.projectId, [...plan.changed, ...plan.same].map((c) => c.id));
  const saves = plan.changed.flatMap((planned) => {
    const [row, before] = [rows.get(planned.id), byId.get(planned.id)];
    return row === undefined || before === undefined ? [] : [{ row, value: { kind: 'case' as const, content: changedCase(before.content, planned, chosen, known.project) } }];
  });
  const changed = await writeVersions(work, actor, change, saves, '', (done) => onProgress(plan.added.length + done, total));
  const remembered = await remember(work, mapping.source, [
    ...added.bases,
    ...[...plan.changed, ...plan.same].flatMap(({ id, entry }) => {
      const [row, before] = [rows.get(id), byId.get(id)];
      // A file of ours says itself which version it grew from.
      return row === undefined || before === undefined || (entry.ownId !== null && before.key === null) ? [] : [{ row, key: entry.key, from: before.base, to: caseBaseOf(entry, before.content, known.project.fields) }];
    }),
  ]);
  await execute(work, `INSERT INTO import_source (project_id, kind, name, mapping) VALUES ($1, 'case', $2, $3) ON CONFLICT (project_id, kind, name) DO UPDATE SET mapping = excluded.mapping`, [actor.projectId, mapping.source, JSON.stringify(mapping)]);
  await writeJournalEntry(work, actor, { action: 'import', parts: [...made, ...added.parts, ...changed, ...remembered], detail: mapping.source, note: `${plan.added.length} added, ${plan.changed.length} changed` }, change);
  return change;
}

/** A plain condition for each requirement that cases are linked to and nobody has analysed: a case covers conditions. */
async function analyse(work: UnitOfWork, actor: Actor, change: string, { bare, known }: Planned): Promise<JournalEntryPart[]> {
  if (bare.length === 0) return [];
  const first = await reserveNumbers(work, actor.projectId, 'condition', bare.length);
  const heads = await modelsOf(work.db).Artefact.findAll({ where: { projectId: actor.projectId, kind: 'requirement', number: bare.map((id) => Number(id.slice(2))) }, transaction: work.transaction });
  const versions = new Map(heads.map((row) => [artefactId('requirement', row.number), row.head]));
  const rows = bare.map((id, i): NewArtefactRow => ({ number: first + i, parent: null, position: 0, value: { kind: 'condition', content: { ...EMPTY_CONDITION, title: known.titleOf(id), requirements: [{ id, seenVersion: versions.get(id) ?? 1, anchor: null }] } } }));
  return (await insertArtefacts(work, actor, change, rows)).parts;
}

interface Base {
  readonly row: ArtefactRow;
  readonly key: string;
  readonly from: CaseBase | null;
  readonly to: CaseBase;
}

async function addCases(work: UnitOfWork, actor: Actor, change: string, entries: readonly CaseEntry[], project: CaseFileProject, onWritten: (done: number) => Promise<void>): Promise<{ readonly parts: readonly JournalEntryPart[]; readonly bases: readonly Base[] }> {
  if (entries.length === 0) return { parts: [], bases: [] };
  const first = await reserveNumbers(work, actor.projectId, 'case', entries.length);
  const contents = entries.map((entry) => addedCase(entry, project));
  const made = contents.map((content, i): NewArtefactRow => ({ number: first + i, value: { kind: 'case', content }, parent: null, position: 0 }));
  const { rows, parts } = await insertArtefacts(work, actor, change, made, onWritten);
  const bases = rows.flatMap((row, i): Base[] => {
    const [entry, content] = [entries[i], contents[i]];
    return entry === undefined || content === undefined ? [] : [{ row, key: entry.key, from: null, to: caseBaseOf(entry, content, project.fields) }];
  });
  return { parts, bases };
}

/** What the next import of the source is told apart from; taken back with the import. */
async function remember(work: UnitOfWork, source: string, bases: readonly Base[]): Promise<JournalEntryPart[]> {
  const stored = (base: CaseBase) => ({ fields: Object.fromEntries(Object.entries(base).flatMap(([name, text]) => (text === undefined ? [] : [[name, text]]))), relations: [], facts: '' });
  await execute(
    work,
    `INSERT INTO imported (artefact_id, base, source, key) SELECT r.id, r.base, $2, r.key FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, base jsonb, key text)
     ON CONFLICT (artefact_id) DO UPDATE SET base = excluded.base, source = excluded.source, key = excluded.key`,
    [JSON.stringify(bases.map(({ row, key, to }) => ({ id: row.id, key, base: stored(to) }))), source],
  );
  return bases.flatMap(({ row, from, to }) => (from === null ? [] : [{ artefact: row, fromVersion: null, toVersion: null, undo: { kind: 'imported', from: stored(from), to: stored(to) } satisfies UndoPlan }]));
}

async function rowsOf(work: UnitOfWork, projectId: string, ids: readonly CaseId[]): Promise<Map<CaseId, ArtefactRow>> {
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { projectId, kind: 'case', number: ids.map((id) => Number(id.slice(2))) }, transaction: work.transaction });
  return new Map(rows.map((row) => [artefactId('case', row.number), row]));
}
