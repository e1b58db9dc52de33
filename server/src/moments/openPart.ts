import { createHash } from 'node:crypto';
import { momentKey, readStoredSettings, type Moment, type OpenedMoment, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { dropUnnamedAttachments } from '../artefacts/index.ts';
import { answersAny, execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Membership } from '../people/index.ts';
import { SEEN, heldPart, seenOf } from './heldPart.ts';
import { makeMoment } from './makeMoment.ts';
import { parentOf, seenNow, settingsAt, timeOfRevision } from './momentRows.ts';

/** Parts of the same modules that there are at a time: somebody may still read an earlier one while another opens the next. */
const MOST_OF_PART = 12;

/** Names modules in a key without telling them. */
export function modulesKey(modules: readonly string[]): string {
  return createHash('sha256').update(JSON.stringify(modules)).digest('hex').slice(0, 16);
}

/** Whether a moment holds what somebody sees who sees only some modules, and no more. */
export function isTheirPart(moment: Moment, modules: readonly string[]): boolean {
  return moment.kind === 'part' && moment.modules === modulesKey(modules);
}

/**
 * Opens what somebody sees of a project who sees only some modules: a project of its own with nothing else in it, so that
 * whatever reads it can tell no more. It is made when there is something newer than what is there.
 * @throws {DomainError} for somebody who sees everything.
 */
export async function openPart(work: UnitOfWork, { projectId, sees }: Pick<Membership, 'projectId' | 'sees'>): Promise<OpenedMoment> {
  if (sees === null) throw new DomainError({ code: 'moment_unknown' });
  const parent = await parentOf(work, projectId);
  const { revision } = parent;
  const known = await stillRight(work, projectId, sees);
  const key = known ?? momentKey(parent.key, { kind: 'part', revision, modules: modulesKey(sees) });
  if (known === null) await make(work, { projectId, key, revision, modules: sees, ids: await seenOf(work, projectId, sees) });
  await seenNow(work, key);
  const at = (await timeOfRevision(work, projectId, revision)) ?? new Date();
  return { key, name: parent.name, role: 'reader', sees: [...sees], at: at.toISOString() };
}

/** Whether opening it would take long, as something newer is to be made. */
export async function isPartToBeMade(work: UnitOfWork, { projectId, sees }: Pick<Membership, 'projectId' | 'sees'>): Promise<boolean> {
  return sees !== null && (await stillRight(work, projectId, sees)) === null;
}

const lastRow = z.object({ id: z.string(), key: z.string(), revision: z.number() });

/**
 * The part of these modules that was made last, if nothing was done since to what it holds, to what is seen now or to
 * the settings; null otherwise. Whatever comes into sight or goes out of it has been changed itself, or something has that it
 * belongs to and that is seen then or now.
 */
async function stillRight(work: UnitOfWork, projectId: string, modules: readonly string[]): Promise<string | null> {
  const [last] = await selectRows(work, lastRow, 'SELECT id, key, revision FROM project WHERE moment_of = $1 AND part = $2 ORDER BY revision DESC LIMIT 1', [projectId, modules]);
  if (last === undefined) return null;
  // Mostly nothing was done at all, and all that is seen need not be looked for.
  const hasNewer = await answersAny(work, 'SELECT 1 FROM change WHERE project_id = $1 AND revision > $2 LIMIT 1', [projectId, last.revision]);
  if (!hasNewer) return last.key;
  const isTouched = await answersAny(
    work,
    `SELECT 1 FROM change c JOIN change_part p ON p.change_id = c.id LEFT JOIN artefact a ON a.id = p.artefact_id
     WHERE c.project_id = $1 AND c.revision > $3 AND (p.artefact_id IS NULL OR p.artefact_id IN (${SEEN})
       OR EXISTS (SELECT 1 FROM artefact held WHERE held.project_id = $4 AND held.kind = a.kind AND held.number = a.number)) LIMIT 1`,
    [projectId, modules, last.revision, last.id],
  );
  return isTouched ? null : last.key;
}

interface Part {
  readonly projectId: string;
  readonly key: string;
  readonly revision: number;
  readonly modules: readonly string[];
  /** The rows of what is seen. */
  readonly ids: readonly string[];
}

async function make(work: UnitOfWork, { projectId, key, revision, modules, ids }: Part): Promise<void> {
  const { settings } = readStoredSettings(await settingsAt(work, projectId, revision));
  const made = await makeMoment(work, { key, parent: projectId, settings: settingsOfPart(settings, modules), revision }, heldPart(projectId, revision, ids));
  if (made === null) return;
  await dropUnnamedAttachments(work, made);
  await execute(work, 'UPDATE project SET part = $2 WHERE key = $1', [key, modules]);
  await execute(work, `DELETE FROM project WHERE id IN (SELECT id FROM project WHERE moment_of = $1 AND part = $2 AND key <> $3 ORDER BY seen_at DESC OFFSET ${MOST_OF_PART - 1})`, [projectId, modules, key]);
}

/** Settings tell of other modules, and lead to a tracker that knows of everything. */
function settingsOfPart(settings: ProjectSettings, seen: readonly string[]): ProjectSettings {
  return { ...settings, modules: settings.modules.filter((module) => seen.includes(module)), keepers: [], tracker: null };
}
