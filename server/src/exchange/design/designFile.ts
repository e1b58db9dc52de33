import type { ArtefactKind } from '@caderno/core/artefacts';
import type { CarriedArtefact, CarriedDesign } from '@caderno/core/carrying';
import { designFileSchema, placedIssues, type DesignFile } from '@caderno/contract';
import { kindAndContentOrBroken } from '../../artefacts/index.ts';
import { DomainError } from '../../domainError.ts';

/** A design file whose contents were read by the schemas of their kinds. */
export interface ReadDesign {
  readonly design: CarriedDesign;
  readonly files: DesignFile['files'];
}

/** @throws {DomainError} when the bytes are no design file, or one of a later version of Caderno: nothing is read of it by halves. */
export function readDesign(bytes: Uint8Array): ReadDesign {
  const file = parsed(bytes);
  refuseOdd(file.artefacts);
  const { artefacts, schemas, project, fields, constants, depths, priorities, files } = file;
  return { design: { project, fields, constants, depths, priorities, artefacts: artefacts.map((a) => artefactOf(a, schemas[a.kind])) }, files };
}

function parsed(bytes: Uint8Array): DesignFile {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes));
  } catch (cause) {
    throw new DomainError({ code: 'design_unreadable', at: '', reason: 'it is no JSON' }, { cause });
  }
  const read = designFileSchema.safeParse(json);
  if (read.success) return read.data;
  const [first] = placedIssues(read.error);
  throw new DomainError({ code: 'design_unreadable', at: first?.path ?? '', reason: first?.message ?? '' });
}

/** What no design file of ours has, and what would stand twice or in a circle. */
function refuseOdd(artefacts: DesignFile['artefacts']): void {
  const [ids, firsts] = [new Set<string>(), new Set<string>()];
  for (const { id, first, under } of artefacts) {
    const name = `${first.project} ${first.id}`;
    if (ids.has(id) || firsts.has(name)) throw new DomainError({ code: 'design_unreadable', at: id, reason: 'it stands in it twice' });
    if (under !== null && !ids.has(under)) throw new DomainError({ code: 'design_unreadable', at: id, reason: `it stands below ${under}, which does not come before it` });
    ids.add(id);
    firsts.add(name);
  }
}

function artefactOf({ kind, id, versions, base, ...rest }: DesignFile['artefacts'][number], schema: number): CarriedArtefact {
  if (!id.startsWith(LETTERS[kind])) throw new DomainError({ code: 'design_unreadable', at: id, reason: `it is no ${kind}` });
  const contentOf = (content: unknown, place: string) => {
    const value = kindAndContentOrBroken(kind, schema, content);
    if (value === null) throw new DomainError({ code: 'design_unreadable', at: `${id} ${place}`, reason: 'its content cannot be read' });
    return value.content;
  };
  const read = { ...rest, kind, id, versions: versions.map((v) => ({ ...v, content: contentOf(v.content, `v${v.version}`) })), base: base === null ? null : contentOf(base, 'base') };
  // The id was held against the kind, and each content read by it.
  return read as unknown as CarriedArtefact;
}

const LETTERS: Readonly<Record<ArtefactKind, string>> = { requirement: 'R-', condition: 'K-', case: 'C-', question: 'Q-', shared: 'S-', dataSet: 'D-', feature: 'F-', suite: 'U-' };
