import { createHash } from 'node:crypto';
import type { ArtefactKind } from '@caderno/core/artefacts';
import { questionMeaning, requirementMeaning } from '@caderno/core/basis';
import { caseMeaning } from '@caderno/core/cases';
import { conditionMeaning } from '@caderno/core/conditions';
import { dataSetMeaning } from '@caderno/core/dataSets';
import { sharedMeaning } from '@caderno/core/shared';
import { canonicalText, type Json } from '@caderno/core/versions';
import { CONTENT_MIGRATIONS, CONTENT_SCHEMA, CONTENT_SCHEMA_VERSION, type ContentOfKind, type KindAndContent } from '@caderno/contract';

/** A content on its way out of the database: checked by the schema of its kind, after migration from older schemas. */
export function contentFromStore<K extends ArtefactKind>(kind: K, schema: number, stored: unknown): ContentOfKind[K] {
  if (schema < 1 || schema > CONTENT_SCHEMA_VERSION[kind]) {
    throw new Error(`The stored schema of a ${kind} is known: expected at most ${CONTENT_SCHEMA_VERSION[kind]}, got ${schema}`);
  }
  const migrated = CONTENT_MIGRATIONS[kind].slice(schema - 1).reduce((content, migrate) => migrate(content), stored as Record<string, unknown>);
  return CONTENT_SCHEMA[kind].parse(migrated);
}

/** The same, with the kind beside it. */
export function kindAndContentFromStore(kind: ArtefactKind, schema: number, stored: unknown): KindAndContent {
  switch (kind) {
    case 'requirement':
      return { kind, content: contentFromStore(kind, schema, stored) };
    case 'condition':
      return { kind, content: contentFromStore(kind, schema, stored) };
    case 'case':
      return { kind, content: contentFromStore(kind, schema, stored) };
    case 'question':
      return { kind, content: contentFromStore(kind, schema, stored) };
    case 'shared':
      return { kind, content: contentFromStore(kind, schema, stored) };
    case 'dataSet':
      return { kind, content: contentFromStore(kind, schema, stored) };
  }
}

/** Content as plain JSON: what the core compares and merges. */
export function asJson(value: unknown): Json {
  return JSON.parse(JSON.stringify(value)) as Json;
}

/** Hash of the canonical content: equal for equal content. */
export function contentHash(content: unknown): string {
  return createHash('sha256').update(canonicalText(asJson(content))).digest('hex');
}

/** Equal texts mean the same: trace links to it stay as they are. */
export function meaningText(value: KindAndContent): string {
  return canonicalText(asJson(meaningOf(value)));
}

function meaningOf(value: KindAndContent): unknown {
  switch (value.kind) {
    case 'requirement':
      return requirementMeaning(value.content);
    case 'condition':
      return conditionMeaning(value.content);
    case 'case':
      return caseMeaning(value.content);
    case 'question':
      return questionMeaning(value.content);
    case 'shared':
      return sharedMeaning(value.content);
    case 'dataSet':
      return dataSetMeaning(value.content);
  }
}
