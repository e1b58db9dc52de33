import { setImmediate as turn } from 'node:timers/promises';
import { ARTEFACT_KINDS, artefactId, parseArtefactId, type ArtefactId } from '@caderno/core/artefacts';
import { ownTextFields, type OwnField } from '@caderno/core/fields';
import { finderOf, placeName, placesFound, type Finder, type FoundPlace, type Search, type TextPart } from '@caderno/core/replacing';
import { PLACES_PAGE, type FoundInArtefact, type FoundPlaces, type KindAndContent } from '@caderno/contract';
import { z } from 'zod';
import { textsOrBroken } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { revisionOf } from '../log/index.ts';
import { readSettings } from '../projects/index.ts';
import { likeText } from './wordsSql.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 1_000;
/** Words that so many have are no way to tell them apart. */
const COMMON = 0.8;

/** The finder of a search. @throws {DomainError} when it is no pattern. */
export function finderOrRefused(search: Search): Finder {
  const find = finderOf(search);
  if (find === null) throw new DomainError({ code: 'search_unreadable', text: search.text });
  return find;
}

/** The texts of some artefacts in which something is found, in the order of the ids: a page of them, and how many there are in all. */
export async function findPlaces(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[], { search, parts, skip }: { readonly search: Search; readonly parts: readonly TextPart[]; readonly skip: number }): Promise<FoundPlaces> {
  const find = finderOrRefused(search);
  const revision = await revisionOf(work, projectId);
  const { fields } = (await readSettings(work, projectId)).settings;
  const own = ownTextFields(fields);
  const wanted = new Set(parts);
  const places: FoundInArtefact[] = [];
  let [total, matches, artefacts] = [0, 0, 0];
  // Where nearly all hold the words, asking the database for those that do costs more than it spares.
  let isCommon = search.isPattern;
  const held = (from: number): ReturnType<typeof thoseThatMayHold> => thoseThatMayHold(work, projectId, ids.slice(from, from + AT_A_TIME), isCommon ? null : search.text);
  let next = held(0);
  for (let from = 0; from < ids.length; from += AT_A_TIME) {
    const now = await next;
    isCommon ||= now.length > AT_A_TIME * COMMON;
    // The database is at the next ones while these are looked through; the question has to go out first.
    if (from + AT_A_TIME < ids.length) next = held(from + AT_A_TIME);
    await turn();
    for (const { id, value } of now) {
      const found = placesFound(value, find, wanted, own);
      if (found.length === 0) continue;
      places.push(...found.slice(Math.max(0, skip - total), Math.max(0, skip + PLACES_PAGE - total)).map((place) => told(id, value, fields, place)));
      total += found.length;
      artefacts += 1;
      matches += found.reduce((n, place) => n + place.matches.length, 0);
    }
  }
  return { revision, places, total, matches, artefacts };
}

function told(id: ArtefactId, value: KindAndContent, fields: readonly OwnField[], { path, part, text, matches }: FoundPlace): FoundInArtefact {
  return { id, path, part, name: placeName(value, path, fields), text, matches: [...matches] };
}

const headRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), schema: z.number(), content: z.unknown() });

/** Contents that have words as they are stored; null: all. Whether a pattern stands in one is seen only when it is read. What cannot be read holds nothing. */
async function thoseThatMayHold(work: UnitOfWork, projectId: string, ids: readonly ArtefactId[], text: string | null): Promise<{ readonly id: ArtefactId; readonly value: KindAndContent }[]> {
  const named = ids.flatMap((id, place) => {
    const parsed = parseArtefactId(id);
    return parsed === null ? [] : [{ ...parsed, place }];
  });
  const words = text === null ? '%' : `%${likeText(JSON.stringify(text).slice(1, -1))}%`;
  const rows = await selectRows(
    work,
    headRow,
    `SELECT a.kind, a.number, v.schema, v.content FROM jsonb_to_recordset($2::jsonb) AS r(kind text, number int, place int)
     JOIN artefact a ON a.project_id = $1 AND a.kind = r.kind AND a.number = r.number AND a.deleted_at IS NULL
     JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head WHERE $3 = '%' OR v.content::text ILIKE $3 ORDER BY r.place`,
    [projectId, JSON.stringify(named), words],
  );
  return rows.flatMap(({ kind, number, schema, content }) => {
    const value = textsOrBroken(kind, schema, content);
    return value === null ? [] : [{ id: artefactId(kind, number), value }];
  });
}
