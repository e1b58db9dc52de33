import { randomUUID } from 'node:crypto';
import type { RiskScale } from '@caderno/core/basis';
import { asJson, sameJson } from '@caderno/core/versions';
import { z } from 'zod';
import { deriveAnew, meaningBegan, readAllVersions, readHeads } from '../artefacts/index.ts';
import { execute, idRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import type { Held } from './held.ts';

/** Contents that are in memory at a time. */
const AT_A_TIME = 500;

/** A moment to be made of a project: what was set then, and the revision it is of. */
export interface Making {
  readonly key: string;
  readonly parent: string;
  readonly settings: unknown;
  readonly revision: number;
}

/** Makes the project that a moment is read as; answers its row, or null when somebody else made it. Whoever makes the same at once waits for the first. */
export async function makeMoment(work: UnitOfWork, { key, parent, settings, revision }: Making, held: Held): Promise<string | null> {
  const [made] = await selectRows(
    work,
    idRow,
    `INSERT INTO project (id, key, name, revision, settings, settings_version, demo, moment_of, seen_at)
     SELECT $1, $2, p.name, $4, $5, 1, p.demo, p.id, now() FROM project p WHERE p.id = $3 ON CONFLICT (key) DO NOTHING RETURNING id`,
    [randomUUID(), key, parent, revision, JSON.stringify(settings)],
  );
  if (made === undefined) return null;
  await execute(work, 'INSERT INTO attachment (project_id, id, type, kept_at, size) SELECT $1, id, type, kept_at, size FROM attachment WHERE project_id = $2', [made.id, parent]);
  const [then, now] = [await readSettings(work, made.id), await readSettings(work, parent)];
  const isRatedTheSame = sameJson(asJson(then.settings.riskScale), asJson(now.settings.riskScale));
  await execute(work, HELD);
  await execute(work, keepHeld(held), [made.id, isRatedTheSame, ...held.bind]);
  // Now it is known how many there are: what is copied is planned by that.
  for (const sql of ['ANALYZE held', ...COPY]) await execute(work, sql);
  const others = await selectRows(work, otherRow, OTHERS);
  await execute(work, 'DROP TABLE held');
  await deriveAll(work, made.id, then.settings.riskScale, others);
  return made.id;
}

const otherRow = z.object({ id: z.string(), isMeaningOpen: z.boolean() });
type OtherRow = z.infer<typeof otherRow>;

/** What is held, for as long as it is copied; `same`: as it is now, so that what was derived from it can be kept. */
const HELD = `
  CREATE TEMPORARY TABLE held (id bigint, moment uuid, old bigint, version int, meaning_since int, agreed_version int, state text, title text, module text, parent_id bigint, position int, same boolean) ON COMMIT DROP`;

/** `$1`: the moment, `$2`: whether risks are told as now. */
const keepHeld = ({ sql }: Held): string => `
  INSERT INTO held
  WITH items AS MATERIALIZED (${sql})
  SELECT nextval(pg_get_serial_sequence('artefact', 'id')), $1::uuid, i.old, i.version, i.meaning_since, i.agreed_version, i.state, i.title, i.module, i.parent_id, i.position, i.version = a.head AND $2
  FROM items i JOIN artefact a ON a.id = i.old`;

/** Copies it with all versions up to those of then, and those that others are pinned to. */
const COPY = [
  `INSERT INTO artefact (id, project_id, kind, number, parent_id, position, head, meaning_since, agreed_version, state, title, module, risk, priority, owner, tags, own, facts, search, author_id, updated_at)
   SELECT held.id, held.moment, a.kind, a.number, above.id, held.position, held.version, coalesce(held.meaning_since, held.version), held.agreed_version, held.state, held.title, held.module, a.risk, a.priority, a.owner, a.tags, a.own, a.facts, a.search, v.author_id, v.at
   FROM held JOIN artefact a ON a.id = held.old JOIN artefact_version v ON v.artefact_id = held.old AND v.version = held.version LEFT JOIN held above ON above.old = held.parent_id`,
  `INSERT INTO artefact_version (artefact_id, version, content, schema, hash, author_id, at, note, change_id)
   WITH pins AS (SELECT l.to_id, max(l.pinned) AS pinned FROM held JOIN link l ON l.from_id = held.old WHERE l.pinned IS NOT NULL GROUP BY l.to_id)
   SELECT held.id, v.version, v.content, v.schema, v.hash, v.author_id, v.at, v.note, v.change_id
   FROM held LEFT JOIN pins ON pins.to_id = held.old JOIN artefact_version v ON v.artefact_id = held.old AND v.version <= greatest(held.version, pins.pinned)`,
  `INSERT INTO link (from_id, to_id, type, seen_version, pinned)
   SELECT held.id, target.id, l.type, l.seen_version, l.pinned FROM held JOIN link l ON l.from_id = held.old JOIN held target ON target.old = l.to_id WHERE held.same`,
];

/** Those of which more is to be derived than was copied, and whether it is to be told when their meaning began. */
const OTHERS = 'SELECT id, meaning_since IS NULL AS "isMeaningOpen" FROM held WHERE NOT same OR meaning_since IS NULL ORDER BY id';

/** Derives from the contents of then. */
async function deriveAll(work: UnitOfWork, moment: string, riskScale: RiskScale, rows: readonly OtherRow[]): Promise<void> {
  for (let from = 0; from < rows.length; from += AT_A_TIME) {
    const some = rows.slice(from, from + AT_A_TIME);
    await tellMeanings(work, some.filter((r) => r.isMeaningOpen));
    const heads = await readHeads(work, some);
    await deriveAnew(work, moment, riskScale, [...heads].map(([rowId, value]) => ({ rowId, value })));
  }
}

async function tellMeanings(work: UnitOfWork, rows: readonly { readonly id: string }[]): Promise<void> {
  if (rows.length === 0) return;
  const versions = await readAllVersions(work, rows.map((r) => r.id));
  const records = [...versions].map(([id, values]) => ({ id, since: meaningBegan(values) }));
  await execute(work, 'UPDATE artefact SET meaning_since = r.since FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, since int) WHERE artefact.id = r.id', [JSON.stringify(records)]);
}
