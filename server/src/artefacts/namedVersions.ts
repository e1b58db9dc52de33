import { artefactId, parseArtefactId, type ArtefactId, type ArtefactKind } from '@caderno/core/artefacts';
import { isUse, usedBy, type Step } from '@caderno/core/cases';
import type { KindAndContent } from '@caderno/contract';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';

interface NamedVersion {
  readonly id: ArtefactId;
  readonly version: number;
}

/** The versions a content names: seen by its links, pinned by its uses, grown from, settled in. */
function namedVersions(value: KindAndContent): NamedVersion[] {
  switch (value.kind) {
    case 'requirement':
      return [];
    case 'condition':
      return value.content.requirements.map(seen);
    case 'case': {
      const { covers, steps, data, origin } = value.content;
      return [...covers.map(seen), ...pinned(steps), ...(data?.pinned == null ? [] : [{ id: data.set, version: data.pinned }]), ...(origin === null ? [] : [origin])];
    }
    case 'shared':
      return pinned(value.content.steps);
    case 'dataSet':
      return value.content.serves.map(seen);
    case 'question':
      return [...value.content.settledIn];
  }
}

function seen(link: { readonly id: ArtefactId; readonly seenVersion: number }): NamedVersion {
  return { id: link.id, version: link.seenVersion };
}

function pinned(steps: readonly Step[]): NamedVersion[] {
  return steps.filter(isUse).flatMap((use) => (use.pinned === null ? [] : [{ id: usedBy(use), version: use.pinned }]));
}

/** @throws {DomainError} when a version is named that its artefact does not have. Artefacts that are not there are a matter of links. */
export async function refuseUnknownVersions(work: UnitOfWork, projectId: string, values: readonly KindAndContent[]): Promise<void> {
  const records = values.flatMap(namedVersions).flatMap(({ id, version }) => {
    const parsed = parseArtefactId(id);
    return parsed === null ? [] : [{ ...parsed, version }];
  });
  if (records.length === 0) return;
  const [wrong] = await selectRows<{ kind: ArtefactKind; number: number; version: number }>(
    work,
    `SELECT r.kind, r.number, r.version FROM jsonb_to_recordset($1::jsonb) AS r(kind text, number int, version int)
     JOIN artefact a ON a.project_id = $2 AND a.kind = r.kind AND a.number = r.number WHERE r.version > a.head LIMIT 1`,
    [JSON.stringify(records), projectId],
  );
  if (wrong !== undefined) throw new DomainError({ code: 'version_unknown', id: artefactId(wrong.kind, wrong.number), version: wrong.version });
}
