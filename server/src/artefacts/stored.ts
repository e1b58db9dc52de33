import { artefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { KIND_SCHEMA, placedIssues, schemaVersionOf, type ContentOfKind, type KindAndContent, type PlacedIssue } from '@caderno/contract';
import { DomainError } from '../domainError.ts';

/** What is stored cannot be read: nothing that Caderno writes, but older data or a hand in the database may be so. */
export class BrokenContent extends Error {
  readonly issues: readonly PlacedIssue[];
  constructor(issues: readonly PlacedIssue[], options?: ErrorOptions) {
    super('A stored content cannot be read', options);
    this.name = 'BrokenContent';
    this.issues = issues;
  }
}

/**
 * A content on its way out of the database: checked by the schema of its kind, after migration from older schemas.
 * @throws BrokenContent when it cannot be read.
 */
export function contentFromStore<K extends ArtefactKind>(kind: K, schema: number, stored: unknown): ContentOfKind[K] {
  const read = KIND_SCHEMA[kind].content.safeParse(migrated(kind, schema, stored));
  if (!read.success) throw new BrokenContent(placedIssues(read.error));
  return read.data;
}

function migrated(kind: ArtefactKind, schema: number, stored: unknown): unknown {
  if (schema < 1 || schema > schemaVersionOf(kind)) throw new BrokenContent([{ path: 'schema', message: `must be 1 to ${schemaVersionOf(kind)}, is ${schema}` }]);
  try {
    return KIND_SCHEMA[kind].migrations.slice(schema - 1).reduce((content, migrate) => migrate(content), stored as Record<string, unknown>);
  } catch (cause) {
    // A migration stumbles only over what no schema ever allowed.
    throw new BrokenContent([{ path: 'schema', message: `cannot be brought from ${schema} to ${schemaVersionOf(kind)}` }], { cause });
  }
}

/** The same where nothing can be done without it. @throws {DomainError} that names it when it cannot be read. */
export function contentOrRefused<K extends ArtefactKind>(kind: K, { number, version, schema, content }: { readonly number: number; readonly version: number; readonly schema: number; readonly content: unknown }): ContentOfKind[K] {
  try {
    return contentFromStore(kind, schema, content);
  } catch (cause) {
    if (cause instanceof BrokenContent) throw new DomainError({ code: 'artefact_broken', id: artefactId(kind, number), version }, { cause });
    throw cause;
  }
}

/** The same for one among many: null when it cannot be read, so that the others can. */
export function contentOrBroken<K extends ArtefactKind>(kind: K, schema: number, stored: unknown): ContentOfKind[K] | null {
  return orBroken(() => contentFromStore(kind, schema, stored));
}

function orBroken<T>(read: () => T): T | null {
  try {
    return read();
  } catch (error) {
    if (error instanceof BrokenContent) return null;
    throw error;
  }
}

/** @throws {DomainError} when a content could not be read again once it is stored. Everything that is written goes through it. */
export function refuseUnreadable(values: readonly KindAndContent[]): void {
  for (const { kind, content } of values) {
    const read = KIND_SCHEMA[kind].content.safeParse(content);
    if (!read.success) throw new DomainError({ code: 'content_invalid', title: String(content.title).slice(0, 80), issues: placedIssues(read.error) });
  }
}

/** The same, with the kind beside it. */
export function kindAndContentFromStore<K extends ArtefactKind>(kind: K, schema: number, stored: unknown): KindAndContent<K> {
  return { kind, content: contentFromStore(kind, schema, stored) };
}

/** The same for one among many: null when it cannot be read. */
export function kindAndContentOrBroken(kind: ArtefactKind, schema: number, stored: unknown): KindAndContent | null {
  return orBroken(() => kindAndContentFromStore(kind, schema, stored));
}

/**
 * A content for looking through its texts only, where thousands are looked through. What today's schema has stored was
 * checked then: here only its shape is, as far as texts stand in it. Null when it cannot be read.
 */
export function textsOrBroken(kind: ArtefactKind, schema: number, stored: unknown): KindAndContent | null {
  return schema === schemaVersionOf(kind) && hasTexts(stored) ? ({ kind, content: stored } as KindAndContent) : kindAndContentOrBroken(kind, schema, stored);
}

/** Whether texts stand in a content where they are looked for. By hand, as a schema takes most of the time of a search (it judges this in a test). */
export function hasTexts(stored: unknown): boolean {
  return isRecord(stored) && typeof stored.title === 'string' && isListOf(stored.steps, isStep) && isListOf(stored.rows, isRow) && isListOf(stored.parameters, hasId);
}

type Fields = Readonly<Record<string, unknown>>;

function isRecord(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function isListOf(value: unknown, is: (element: unknown) => boolean): boolean {
  return value === undefined || (Array.isArray(value) && value.every(is));
}

function hasId(value: unknown): value is Fields {
  return isRecord(value) && typeof value.id === 'string';
}

function isStep(value: unknown): boolean {
  return hasId(value) && typeof value.kind === 'string' && isListOf(value.arguments, hasId);
}

function isRow(value: unknown): boolean {
  return hasId(value) && isRecord(value.cells) && Object.values(value.cells).every((cell) => typeof cell === 'string');
}
