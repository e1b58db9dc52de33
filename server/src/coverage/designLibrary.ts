import { artefactId } from '@caderno/core/artefacts';
import type { DesignCase, DesignLibrary } from '@caderno/core/coverage';
import { keysUsed, type LibraryEntry } from '@caderno/core/shared';
import { z } from 'zod';
import { readLibrary } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';

/** What these cases use, all the way down; cases among them are not in it once more. */
export async function libraryOf(work: UnitOfWork, projectId: string, cases: readonly DesignCase[]): Promise<DesignLibrary> {
  const own = new Set<string>(cases.map((c) => c.id));
  return entriesFor(work, projectId, cases.flatMap((c) => keysUsed(c.content)).filter((key) => !own.has(key)), own);
}

/** What the cases of a project use that is not among its cases: shared steps, data sets, and what a use is pinned to. */
export async function projectLibrary(work: UnitOfWork, projectId: string, cases: readonly DesignCase[]): Promise<DesignLibrary> {
  return entriesFor(work, projectId, [...(await sharedKeys(work, projectId)), ...cases.flatMap((c) => keysUsed(c.content)).filter(isPinned)], new Set(cases.map((c) => c.id)));
}

/** What is to be taken in after cases and what they use changed; `changed`: the keys of shared steps, data sets, and of what is used at its agreed version. */
export async function changedLibrary(work: UnitOfWork, projectId: string, changed: readonly string[], cases: readonly DesignCase[]): Promise<{ readonly entries: DesignLibrary; readonly gone: readonly string[] }> {
  const library = await readLibrary(work, projectId, [...changed, ...cases.flatMap((c) => keysUsed(c.content)).filter(isPinned)]);
  // What is reached as the latest version is known already, unless it is among those that changed.
  const entries = [...library].flatMap(([key, used]): LibraryEntry[] => (isPinned(key) || changed.includes(key) ? [{ key, used }] : []));
  return { entries, gone: changed.filter((key) => !library.has(key)) };
}

async function entriesFor(work: UnitOfWork, projectId: string, keys: readonly string[], without: ReadonlySet<string>): Promise<DesignLibrary> {
  return [...(await readLibrary(work, projectId, keys))].flatMap(([key, used]) => (without.has(key) ? [] : [{ key, used }]));
}

const sharedKeyRow = z.object({ kind: z.enum(['shared', 'dataSet']), number: z.number() });

/** The keys of all shared steps and data sets. */
async function sharedKeys(work: UnitOfWork, projectId: string): Promise<string[]> {
  const rows = await selectRows(work, sharedKeyRow, `SELECT kind, number FROM artefact WHERE project_id = $1 AND kind IN ('shared', 'dataSet') AND deleted_at IS NULL ORDER BY kind, number`, [projectId]);
  return rows.map((row) => artefactId(row.kind, row.number));
}

function isPinned(key: string): boolean {
  return key.includes('@');
}
