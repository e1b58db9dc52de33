import { ARTEFACT_STATES, ARTEFACT_KINDS, artefactId, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { EMPTY_CASE, isUse } from '@caderno/core/cases';
import { DEEPEST, countExpanded, findCircle, keyOf, keysUsed, keysUsedIn, type SharedContent, type StepsOwnerId, type Used } from '@caderno/core/shared';
import type { KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { answersAny, selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { kindAndContentOrBroken } from './stored.ts';
import { storedPin } from './storedPin.ts';

const usedRow = z.object({ key: z.string(), kind: z.enum(ARTEFACT_KINDS), number: z.number(), state: z.enum(ARTEFACT_STATES), version: z.number(), schema: z.number(), content: z.unknown() });

/** All that uses lead to, by their keys, level by level; what is not in the project is not in it. */
export async function readLibrary(work: UnitOfWork, projectId: string, keys: readonly string[]): Promise<Map<string, Used>> {
  const library = new Map<string, Used>();
  let wanted = [...new Set(keys)];
  // One level more than may be opened, so that whoever opens it sees that it is too deep.
  for (let level = 0; wanted.length > 0 && level <= DEEPEST + 1; level += 1) {
    const found = await readUsed(work, projectId, wanted);
    for (const { key, used } of found) library.set(key, used);
    wanted = [...new Set(found.flatMap(({ used }) => keysUsedIn(used)))].filter((key) => !library.has(key));
  }
  return library;
}

async function readUsed(work: UnitOfWork, projectId: string, keys: readonly string[]): Promise<{ key: string; used: Used }[]> {
  const records = keys.flatMap((key) => {
    const [id = '', version] = key.split('@');
    const parsed = parseArtefactId(id);
    return parsed === null ? [] : [{ key, ...parsed, version: version === undefined || version === 'agreed' ? null : Number(version), agreed: version === 'agreed' }];
  });
  const rows = await selectRows(
    work,
    usedRow,
    `SELECT k.key, a.kind, a.number, a.state, v.version, v.schema, v.content
     FROM jsonb_to_recordset($1::jsonb) AS k(key text, kind text, number int, version int, agreed boolean)
     JOIN artefact a ON a.project_id = $2 AND a.kind = k.kind AND a.number = k.number AND a.deleted_at IS NULL
     JOIN artefact_version v ON v.artefact_id = a.id AND v.version = coalesce(k.version, CASE WHEN k.agreed THEN a.agreed_version END, a.head)`,
    [JSON.stringify(records), projectId],
  );
  return rows.flatMap(({ key, kind, number, state, version, schema, content }): { key: string; used: Used }[] => {
    const head = { version, withdrawn: state === 'withdrawn' };
    const value = kindAndContentOrBroken(kind, schema, content);
    // What cannot be read is as what is not there: whoever uses it is told at the use.
    if (value?.kind === 'shared') return [{ key, used: { ...value, id: artefactId(value.kind, number), ...head } }];
    if (value?.kind === 'dataSet') return [{ key, used: { ...value, id: artefactId(value.kind, number), ...head } }];
    return value?.kind === 'case' ? [{ key, used: { ...value, id: artefactId(value.kind, number), ...head } }] : [];
  });
}

/** Whose uses are to be checked, as they stand in the database now. */
export interface Using {
  readonly id: ArtefactId;
  readonly value: KindAndContent;
}

/** The same of artefacts of which another version is agreed now, which others may follow. */
export async function refuseAgreedCircles(work: UnitOfWork, rows: readonly ArtefactRow[]): Promise<void> {
  const steps = rows.filter((row) => row.kind === 'case' || row.kind === 'shared');
  const [first] = steps;
  if (first === undefined || !(await answersAny(work, 'SELECT 1 FROM link l JOIN artefact a ON a.id = l.to_id WHERE a.project_id = $1 AND l.pinned = $2 LIMIT 1', [first.projectId, storedPin('agreed')]))) return;
  const library = await readLibrary(work, first.projectId, steps.map((row) => keyOf(artefactId(row.kind, row.number), 'agreed')));
  const agreed = steps.flatMap((row): Using[] => {
    const id = artefactId(row.kind, row.number);
    const used = library.get(keyOf(id, 'agreed'));
    return used === undefined ? [] : [{ id, value: { kind: used.kind, content: used.content } as KindAndContent }];
  });
  await refuseCircles(work, first.projectId, agreed);
}

/** @throws {DomainError} when an artefact uses itself, directly or through others, or uses are nested too deep. */
export async function refuseCircles(work: UnitOfWork, projectId: string, written: readonly Using[]): Promise<void> {
  const using = written.flatMap(({ id, value }) => (value.kind === 'case' || value.kind === 'shared' ? [{ id: id as StepsOwnerId, content: value.content as Pick<SharedContent, 'steps'> }] : [])).filter(({ content }) => content.steps.some(isUse));
  if (using.length === 0) return;
  const library = await readLibrary(work, projectId, using.flatMap(({ content }) => keysUsed(content)));
  for (const { id, content } of using) {
    const path = findCircle(id, content, library);
    if (path !== null) throw new DomainError({ code: 'use_circle', path });
    if (countExpanded({ ...EMPTY_CASE, steps: content.steps }, library).depth > DEEPEST) throw new DomainError({ code: 'uses_too_deep', limit: DEEPEST });
  }
}
