import { createHash } from 'node:crypto';
import { momentKey, readStoredSettings, type Moment, type OpenedMoment, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { execute, selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Membership } from '../people/index.ts';
import { heldPart } from './heldPart.ts';
import { makeMoment } from './makeMoment.ts';
import { isMade, parentOf, seenNow, settingsAt } from './momentRows.ts';

/** Parts of the same modules that there are at a time: somebody may still read an earlier one while another opens the next. */
const MOST_OF_PART = 3;

const stampRow = z.object({ at: z.date() });

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
  const key = momentKey(parent.key, { kind: 'part', revision, modules: modulesKey(sees) });
  if (!(await isMade(work, key))) await make(work, { projectId, key, revision, modules: sees });
  await seenNow(work, key);
  const [stamp] = await selectRows(work, stampRow, 'SELECT coalesce((SELECT at FROM change WHERE project_id = $1 AND revision <= $2 ORDER BY revision DESC LIMIT 1), now()) AS at', [projectId, revision]);
  return { key, name: parent.name, role: 'reader', sees: [...sees], at: (stamp?.at ?? new Date()).toISOString() };
}

/** Whether opening it would take long, as something newer is to be made. */
export async function isPartToBeMade(work: UnitOfWork, { projectId, sees }: Pick<Membership, 'projectId' | 'sees'>): Promise<boolean> {
  if (sees === null) return false;
  const { key, revision } = await parentOf(work, projectId);
  return !(await isMade(work, momentKey(key, { kind: 'part', revision, modules: modulesKey(sees) })));
}

interface Part {
  readonly projectId: string;
  readonly key: string;
  readonly revision: number;
  readonly modules: readonly string[];
}

async function make(work: UnitOfWork, { projectId, key, revision, modules }: Part): Promise<void> {
  const { settings } = readStoredSettings(await settingsAt(work, projectId, revision));
  await makeMoment(work, { key, parent: projectId, settings: settingsOfPart(settings, modules), revision }, await heldPart(work, projectId, revision, modules));
  await execute(work, 'UPDATE project SET part = $2 WHERE key = $1', [key, modules]);
  await execute(work, `DELETE FROM project WHERE id IN (SELECT id FROM project WHERE moment_of = $1 AND part = $2 AND key <> $3 ORDER BY seen_at DESC OFFSET ${MOST_OF_PART - 1})`, [projectId, modules, key]);
}

/** Settings tell of other modules, and lead to a tracker that knows of everything. */
function settingsOfPart(settings: ProjectSettings, seen: readonly string[]): ProjectSettings {
  return { ...settings, modules: settings.modules.filter((module) => seen.includes(module)), keepers: [], tracker: null };
}
