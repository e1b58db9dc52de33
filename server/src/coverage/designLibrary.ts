import { artefactId } from '@caderno/core/artefacts';
import { isUse, type Step } from '@caderno/core/cases';
import type { DesignCase, DesignLibrary } from '@caderno/core/coverage';
import { keyOfUse, type LibraryEntry } from '@caderno/core/shared';
import { readLibrary } from '../artefacts/index.ts';
import { selectRows, type Work } from '../database/index.ts';

/** What these cases use, all the way down; cases among them are not in it once more. */
export async function libraryOf(work: Work, projectId: string, cases: readonly DesignCase[]): Promise<DesignLibrary> {
  const own = new Set<string>(cases.map((c) => c.id));
  return entriesFor(work, projectId, cases.flatMap((c) => keysUsed(c.content.steps)).filter((key) => !own.has(key)), own);
}

/** What the cases of a project use that is not among its cases: shared steps, and what a use is pinned to. */
export async function projectLibrary(work: Work, projectId: string, cases: readonly DesignCase[]): Promise<DesignLibrary> {
  return entriesFor(work, projectId, [...(await sharedKeys(work, projectId)), ...cases.flatMap((c) => keysUsed(c.content.steps)).filter(isPinned)], new Set(cases.map((c) => c.id)));
}

/** What is to be taken in after cases and shared steps changed. */
export async function changedLibrary(work: Work, projectId: string, shared: readonly number[], cases: readonly DesignCase[]): Promise<{ readonly entries: DesignLibrary; readonly gone: readonly string[] }> {
  const keys = shared.map((number) => artefactId('shared', number));
  const library = await readLibrary(work, projectId, [...keys, ...cases.flatMap((c) => keysUsed(c.content.steps)).filter(isPinned)]);
  // What is reached as the latest version is known already, unless it is among those that changed.
  const entries = [...library].flatMap(([key, used]): LibraryEntry[] => (isPinned(key) || keys.some((k) => k === key) ? [{ key, used }] : []));
  return { entries, gone: keys.filter((key) => !library.has(key)) };
}

async function entriesFor(work: Work, projectId: string, keys: readonly string[], without: ReadonlySet<string>): Promise<DesignLibrary> {
  return [...(await readLibrary(work, projectId, keys))].flatMap(([key, used]) => (without.has(key) ? [] : [{ key, used }]));
}

async function sharedKeys(work: Work, projectId: string): Promise<string[]> {
  const rows = await selectRows<{ number: number }>(work, `SELECT number FROM artefact WHERE project_id = $1 AND kind = 'shared' AND deleted_at IS NULL ORDER BY number`, [projectId]);
  return rows.map((row) => artefactId('shared', row.number));
}

function keysUsed(steps: readonly Step[]): string[] {
  return steps.filter(isUse).map(keyOfUse);
}

function isPinned(key: string): boolean {
  return key.includes('@');
}
