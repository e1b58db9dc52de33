import { createHash } from 'node:crypto';
import { kindOfId, type ArtefactId } from '@caderno/core/artefacts';
import { COVERAGE_FILE, MANIFEST, SETTINGS_FILE, attachmentAt, differenceOf, isDifferent, kindOfPath, readBlockText } from '@caderno/core/designFolder';
import { FILE_LIMITS, isZip, openArchive } from '@caderno/core/exchange';
import { FOLDER_VERSION, LIMITS, folderArtefactSchema, folderManifestSchema, folderVersionSchema, placedIssues, projectSettingsSchema, schemaVersionOf, type FolderArtefact, type FolderManifest, type FolderVersion, type KindAndContent, type ProjectSettings } from '@caderno/contract';
import { z } from 'zod';
import { kindAndContentOrBroken } from '../../artefacts/index.ts';
import { DomainError } from '../../domainError.ts';

const MOST_NAMED = 5;
const LIMITS_OF_FOLDER = { archiveEntries: LIMITS.folderFiles + 2_000, unpackedBytes: LIMITS.unpackedFolder, unpackedRatio: FILE_LIMITS.unpackedRatio };

/** What a file says besides its content, and where it is. */
export type FolderHead = Omit<FolderArtefact, 'content'> & { readonly path: string };
export type FolderVersionHead = Omit<FolderVersion, 'content'> & { readonly path: string };

/** A folder whose files are what its manifest says, or were accepted as they are. */
export interface ReadFolder {
  readonly manifest: FolderManifest;
  readonly settings: ProjectSettings;
  readonly artefacts: readonly FolderHead[];
  readonly versions: readonly FolderVersionHead[];
  /** The content of one of them by the schema of its kind, read anew: together they are many times the room of their bytes. @throws {DomainError} when it cannot be read. */
  readonly valueOf: (head: FolderHead | FolderVersionHead) => KindAndContent;
  /** Bytes by their hash. */
  readonly attachments: ReadonlyMap<string, Uint8Array>;
}

function unreadable(at: string, reason: string): DomainError {
  return new DomainError({ code: 'folder_unreadable', at: at.slice(0, 300), reason });
}

/** @throws {DomainError} when the bytes are no such folder, one of a later Caderno, or one whose files were changed and that is not `accepted`. */
export async function readFolder(bytes: Uint8Array, accepted: boolean): Promise<ReadFolder> {
  const files = await filesOf(bytes);
  const manifest = manifestOf(files);
  const found = new Map([...files].filter(([path]) => path !== MANIFEST).map(([path, content]) => [path, createHash('sha256').update(content).digest('hex')]));
  refuseChanged(new Map(Object.entries(manifest.files)), found, accepted);
  const settings = parsed(projectSettingsSchema, SETTINGS_FILE, files.get(SETTINGS_FILE) ?? new Uint8Array());
  const of = (kind: ReturnType<typeof kindOfPath>) => [...files].filter(([path]) => kindOfPath(path) === kind);
  const artefacts = of('artefact').map(([path, content]) => artefactOf(path, content));
  const versions = of('version').map(([path, content]) => withoutContent(path, parsed(folderVersionSchema, path, content)));
  refuseOdd(artefacts, versions);
  const valueOf: ReadFolder['valueOf'] = ({ id, schema, path }) => valueIn(id, schema, parsed(anyContent, path, files.get(path) ?? new Uint8Array()).content);
  return { manifest, settings, artefacts, versions, valueOf, attachments: new Map(of('attachment').map(([path, content]) => [attachmentAt(path) ?? '', content])) };
}

/** The files by their path in the folder; a folder around it, and what else stands beside it there, is passed over. */
async function filesOf(bytes: Uint8Array): Promise<ReadonlyMap<string, Uint8Array>> {
  if (!isZip(bytes)) throw unreadable('', 'it is no zip');
  const archive = await openArchive(bytes, () => true, LIMITS_OF_FOLDER);
  if (archive.kind === 'refused') throw unreadable('', `it cannot be unpacked (${archive.problem.code})`);
  const [manifest] = [...archive.files.keys()].filter((path) => path === MANIFEST || path.endsWith(`/${MANIFEST}`)).sort((a, b) => a.length - b.length);
  if (manifest === undefined) throw unreadable('', `it has no ${MANIFEST}`);
  const around = manifest.slice(0, -MANIFEST.length);
  const isOurs = (path: string): boolean => path === MANIFEST || path === SETTINGS_FILE || path === COVERAGE_FILE || kindOfPath(path) !== 'other';
  return new Map([...archive.files].flatMap(([path, content]): [string, Uint8Array][] => (path.startsWith(around) && isOurs(path.slice(around.length)) ? [[path.slice(around.length), content]] : [])));
}

function manifestOf(files: ReadonlyMap<string, Uint8Array>): FolderManifest {
  const value = readBlockText(textOf(MANIFEST, files.get(MANIFEST) ?? new Uint8Array()));
  const later = typeof value === 'object' && value !== null && 'version' in value && typeof value.version === 'number' ? value.version : 0;
  // Said before anything else of it is read: a later layout may be quite another.
  if (later > FOLDER_VERSION) throw new DomainError({ code: 'folder_newer', version: later });
  return checked(folderManifestSchema, MANIFEST, value);
}

function refuseChanged(named: ReadonlyMap<string, string>, found: ReadonlyMap<string, string>, accepted: boolean): void {
  const difference = differenceOf(named, found);
  if (accepted || !isDifferent(difference)) return;
  const { changed, missing, unknown } = difference;
  throw new DomainError({ code: 'folder_changed', changed: changed.length, missing: missing.length, unknown: unknown.length, first: [...changed, ...missing, ...unknown].slice(0, MOST_NAMED) });
}

const anyContent = z.looseObject({ content: z.unknown() });

function withoutContent<T extends { readonly content?: unknown }>(path: string, { content: _, ...head }: T): Omit<T, 'content'> & { readonly path: string } {
  return { ...head, path };
}

function artefactOf(path: string, content: Uint8Array): FolderHead {
  const artefact = parsed(folderArtefactSchema, path, content);
  const { id, kind, schema, version, meaningSince, agreed } = artefact;
  if (kindOfId(id) !== kind || !path.endsWith(`/${id}.yaml`)) throw unreadable(path, `says that it is ${id}, of the kind ${kind}`);
  if (schema > schemaVersionOf(kind)) throw new DomainError({ code: 'folder_newer', version: schema });
  if (meaningSince > version || (agreed ?? 0) > version) throw unreadable(path, 'names a version after its own');
  return withoutContent(path, artefact);
}

/** What would stand twice, below nothing, or below itself. */
function refuseOdd(artefacts: readonly FolderHead[], versions: readonly FolderVersionHead[]): void {
  const byId = new Map<ArtefactId, FolderHead>();
  for (const artefact of artefacts) {
    if (byId.has(artefact.id)) throw unreadable(artefact.id, 'stands in it twice');
    byId.set(artefact.id, artefact);
  }
  for (const { id, under } of artefacts) if (under !== null && !byId.has(under)) throw unreadable(id, `stands below ${under}, which is not there`);
  const settled = new Set<ArtefactId>();
  for (const { id } of artefacts) {
    const above = new Set<ArtefactId>();
    for (let at: ArtefactId | null = id; at !== null && !settled.has(at); at = byId.get(at)?.under ?? null) {
      if (above.has(at)) throw unreadable(at, 'stands below itself');
      above.add(at);
    }
    for (const one of above) settled.add(one);
  }
  for (const { id, version } of versions) if (version >= (byId.get(id)?.version ?? 0)) throw unreadable(`${id} v${version}`, 'is no earlier version of anything that is there');
}

function parsed<T>(schema: z.ZodType<T>, path: string, content: Uint8Array): T {
  return checked(schema, path, readBlockText(textOf(path, content)));
}

function checked<T>(schema: z.ZodType<T>, path: string, value: unknown): T {
  if (value === undefined) throw unreadable(path, 'is no YAML of plain values');
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [first] = placedIssues(read.error);
  throw unreadable(path, `cannot be read${first === undefined ? '' : ` (${first.path}: ${first.message})`}`);
}

function textOf(path: string, content: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content);
  } catch (cause) {
    throw new DomainError({ code: 'folder_unreadable', at: path.slice(0, 300), reason: 'is no text in UTF-8' }, { cause });
  }
}

function valueIn(id: ArtefactId, schema: number, content: unknown): KindAndContent {
  const value = kindAndContentOrBroken(kindOfId(id), schema, content);
  if (value === null) throw unreadable(id, 'has a content that cannot be read');
  return value;
}
