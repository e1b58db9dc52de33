import { createHash } from 'node:crypto';
import { asJson, canonicalText } from '@caderno/core/versions';
import { schemaVersionOf, type KindAndContent } from '@caderno/contract';
import { execute, type UnitOfWork } from '../database/index.ts';
import type { Actor } from './journalEntry.ts';

/** A content as it is stored: its canonical text, and the hash of that. */
export interface StoredContent {
  readonly text: string;
  readonly schema: number;
  readonly hash: string;
}

export function storedContent({ kind, content }: KindAndContent): StoredContent {
  const text = canonicalText(asJson(content));
  return { text, schema: schemaVersionOf(kind), hash: hashOf(text) };
}

/** Hash of the canonical content: equal for equal content. */
export function contentHash(content: unknown): string {
  return hashOf(canonicalText(asJson(content)));
}

function hashOf(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}

/** Which version of which row a content is. */
export interface VersionToStore {
  readonly rowId: string;
  readonly version: number;
  readonly stored: StoredContent;
}

export async function insertVersions(work: UnitOfWork, { personId, at }: Pick<Actor, 'personId' | 'at'>, change: string, versions: readonly VersionToStore[], note: string): Promise<void> {
  // Put together by hand, as the contents are texts already.
  const records = versions.map(({ rowId, version, stored: { text, schema, hash } }) => `{"artefact_id":"${rowId}","version":${version},"content":${text},"schema":${schema},"hash":"${hash}"}`);
  await execute(
    work,
    `INSERT INTO artefact_version (artefact_id, version, content, schema, hash, author_id, at, note, change_id)
     SELECT r.*, $2, $3, $4, $5 FROM jsonb_to_recordset($1::jsonb) AS r(artefact_id bigint, version int, content jsonb, schema int, hash text)`,
    [`[${records.join(',')}]`, personId, at, note, change],
  );
}
