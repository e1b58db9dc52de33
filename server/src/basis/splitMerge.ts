import { randomUUID } from 'node:crypto';
import { artefactId, type ArtefactId, type RequirementId, isSuspect } from '@caderno/core/artefacts';
import { absorbedContent, mergedContent, movedQuestion, splitContents, type RequirementContent } from '@caderno/core/basis';
import { anchorIn, type ConditionContent, type RequirementLink } from '@caderno/core/conditions';
import type { BodyOf, Change, Split } from '@caderno/contract';
import {
  changeOfRetry, changeStates, findArtefact, idOfRow, insertArtefacts, lockProject, placeAfter, readHeads, writeJournalEntry, reserveNumbers, writeVersions, type Actor, type JournalEntryPart, type Save,
} from '../artefacts/index.ts';
import { idRow, modelsOf, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { readChange } from '../versions/index.ts';

/** Where conditions and questions go: the requirement their link leads to now, its version and its text. */
interface NewTarget {
  readonly id: RequirementId;
  readonly version: number;
  readonly text: string;
}

/** Splits a requirement; the first part stays it. Who goes along to which part is as the person said. */
export async function splitRequirement(work: UnitOfWork, actor: Actor, id: RequirementId, split: Split): Promise<Change> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return readChange(work, actor.projectId, earlier);
  const row = await requirementRow(work, actor, id);
  const trustedSince = row.meaningSince;
  const content = await requirementContent(work, row);
  const [kept, ...rest] = splitContents(content, id, split.parts);
  if (kept === undefined) throw new Error('A requirement is split into parts: expected the first');
  const change = randomUUID();
  const parts = await writeVersions(work, actor, change, [{ row, value: { kind: 'requirement', content: kept } }]);
  const made = await insertAfter(work, actor, change, row, rest);
  const targets = [row, ...made.rows].map((r, i): NewTarget => ({ id: artefactId('requirement', r.number), version: r.head, text: split.parts[i]?.text ?? '' }));
  const saves = await usersAfter(work, row, trustedSince, (user, link) => targetOf(targets, user, split, link));
  parts.push(...made.parts, ...(await writeVersions(work, actor, change, saves)), ...(await moveChildren(work, actor, split, targets)));
  await writeJournalEntry(work, actor, { action: 'split', parts, detail: String(split.parts.length), note: '' }, change);
  return readChange(work, actor.projectId, change);
}

async function insertAfter(work: UnitOfWork, actor: Actor, change: string, row: ArtefactRow, contents: readonly RequirementContent[]): Promise<{ rows: ArtefactRow[]; parts: JournalEntryPart[] }> {
  const first = await reserveNumbers(work, actor.projectId, 'requirement', contents.length);
  const made = await insertArtefacts(work, actor, change, contents.map((content, i) => ({ number: first + i, value: { kind: 'requirement', content }, parent: null, position: 0 })));
  const parent = row.parentId === null ? null : await modelsOf(work.db).Artefact.findByPk(row.parentId, { transaction: work.transaction });
  const above = parent === null ? null : artefactId('requirement', parent.number);
  for (const [i, part] of made.rows.entries()) await placeAfter(work, part, above, artefactId('requirement', i === 0 ? row.number : first + i - 1));
  return made;
}

function targetOf(targets: readonly NewTarget[], user: ArtefactId, split: Split, link: boolean): NewTarget {
  const places: Readonly<Record<string, number>> = link ? split.conditions : split.questions;
  const target = targets[places[user] ?? 0] ?? targets[0];
  if (target === undefined) throw new Error('A split has targets: expected at least the requirement itself');
  return target;
}

async function moveChildren(work: UnitOfWork, actor: Actor, split: Split, targets: readonly NewTarget[]): Promise<JournalEntryPart[]> {
  const parts: JournalEntryPart[] = [];
  for (const [child, place] of Object.entries(split.children)) {
    const target = targets[place];
    if (place === 0 || target === undefined) continue;
    parts.push(await placeAfter(work, await requirementRow(work, actor, child as RequirementId), target.id, 'last'));
  }
  return parts;
}

/** Merges others into a requirement: what hangs on them hangs on it, they are withdrawn and point to it. */
export async function mergeRequirements(work: UnitOfWork, actor: Actor, id: RequirementId, { absorbed, title, text }: BodyOf<'mergeRequirements'>): Promise<Change> {
  await lockProject(work, actor.projectId);
  const earlier = await changeOfRetry(work, actor);
  if (earlier !== null) return readChange(work, actor.projectId, earlier);
  const row = await requirementRow(work, actor, id);
  const others: ArtefactRow[] = [];
  for (const other of [...new Set(absorbed)]) others.push(await requirementRow(work, actor, other));
  if (others.some((o) => o.id === row.id) || (await standsBelow(work, row, others))) throw new DomainError({ code: 'merge_with_itself', id });
  const contents: RequirementContent[] = [];
  for (const other of others) contents.push(await requirementContent(work, other));
  const trustedSince = new Map([row, ...others].map((r) => [r.id, r.meaningSince]));
  const change = randomUUID();
  const merged = mergedContent(await requirementContent(work, row), contents, { title, text });
  const parts = await writeVersions(work, actor, change, [
    { row, value: { kind: 'requirement', content: merged } },
    ...others.map((other, i): Save => ({ row: other, value: { kind: 'requirement', content: absorbedContent(contents[i] ?? merged, id) } })),
  ]);
  const target: NewTarget = { id, version: row.head, text };
  for (const from of [row, ...others]) parts.push(...(await writeVersions(work, actor, change, await usersAfter(work, from, trustedSince.get(from.id) ?? 1, () => target))));
  for (const other of others) {
    for (const child of await childrenOf(work, other)) parts.push(await placeAfter(work, child, id, 'last'));
    parts.push(...(await changeStates(work, actor, [other], 'withdrawn')));
  }
  await writeJournalEntry(work, actor, { action: 'merge', parts, detail: others.map(idOfRow).join(', '), note: '' }, change);
  return readChange(work, actor.projectId, change);
}

async function requirementRow(work: UnitOfWork, actor: Actor, id: RequirementId): Promise<ArtefactRow> {
  const row = await findArtefact(work, actor.projectId, id);
  if (row.kind !== 'requirement') throw new DomainError({ code: 'kind_mismatch', id, kind: 'requirement' });
  return row;
}

async function requirementContent(work: UnitOfWork, row: ArtefactRow): Promise<RequirementContent> {
  const head = (await readHeads(work, [row])).get(row.id);
  if (head?.kind !== 'requirement') throw new Error(`A requirement's row has a requirement's content: got ${head?.kind}`);
  return head.content;
}

async function childrenOf(work: UnitOfWork, row: ArtefactRow): Promise<ArtefactRow[]> {
  return modelsOf(work.db).Artefact.findAll({ where: { parentId: row.id, deletedAt: null }, order: ['position', 'number'], transaction: work.transaction });
}

async function standsBelow(work: UnitOfWork, row: ArtefactRow, others: readonly ArtefactRow[]): Promise<boolean> {
  const above = await selectRows(
    work,
    idRow,
    'WITH RECURSIVE up AS (SELECT id, parent_id FROM artefact WHERE id = $1 UNION ALL SELECT a.id, a.parent_id FROM artefact a JOIN up ON a.id = up.parent_id) SELECT id FROM up WHERE id <> $1',
    [row.id],
  );
  return above.some((a) => others.some((o) => o.id === a.id));
}

/** The conditions and questions that hang on a requirement, led to their new targets. */
async function usersAfter(work: UnitOfWork, from: ArtefactRow, trustedSince: number, targetFor: (user: ArtefactId, isCondition: boolean) => NewTarget): Promise<Save[]> {
  const users = await selectRows(work, idRow, `SELECT DISTINCT from_id AS id FROM link WHERE to_id = $1 AND type IN ('derives', 'asks')`, [from.id]);
  const rows = await modelsOf(work.db).Artefact.findAll({ where: { id: users.map((u) => u.id), deletedAt: null }, transaction: work.transaction });
  const heads = await readHeads(work, rows);
  const id = artefactId('requirement', from.number);
  return rows.flatMap((row): Save[] => {
    const head = heads.get(row.id);
    if (head?.kind === 'condition') return [{ row, value: { kind: 'condition', content: led(head.content, id, trustedSince, targetFor(idOfRow(row), true)) } }];
    if (head?.kind === 'question') return [{ row, value: { kind: 'question', content: movedQuestion(head.content, id, targetFor(idOfRow(row), false).id) } }];
    return [];
  });
}

/** A link that was trusted stays so, as the person saw where it goes; one that was suspect and stays where it was stays suspect. */
function led(content: ConditionContent, from: RequirementId, trustedSince: number, to: NewTarget): ConditionContent {
  const links = content.requirements.map((link): RequirementLink => {
    if (link.id !== from) return link;
    const wasSuspect = to.id === from && isSuspect(link, { meaningSince: trustedSince });
    return { id: to.id, seenVersion: wasSuspect ? link.seenVersion : to.version, anchor: link.anchor === null ? null : anchorIn(to.text, link.anchor) };
  });
  return { ...content, requirements: links.filter((link, i) => links.findIndex((l) => l.id === link.id) === i) };
}
