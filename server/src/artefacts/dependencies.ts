import { artefactId, type CaseId } from '@caderno/core/artefacts';
import { findDependencyCircle } from '@caderno/core/cases';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import type { Using } from './library.ts';

const dependencyRow = z.object({ from: z.number(), to: z.number() });

/** @throws {DomainError} when cases would wait for each other. What is written has its links already. */
export async function refuseDependencyCircles(work: UnitOfWork, projectId: string, written: readonly Using[]): Promise<void> {
  const depending = written.flatMap(({ id, value }) => (value.kind === 'case' && value.content.dependsOn.length > 0 ? [id as CaseId] : []));
  if (depending.length === 0) return;
  const edges = await selectRows(
    work,
    dependencyRow,
    `SELECT f.number AS "from", t.number AS "to" FROM link JOIN artefact f ON f.id = link.from_id JOIN artefact t ON t.id = link.to_id
     WHERE link.type = 'dependsOn' AND f.project_id = $1 AND f.deleted_at IS NULL AND t.deleted_at IS NULL ORDER BY 1, 2`,
    [projectId],
  );
  const dependsOn = new Map<CaseId, CaseId[]>();
  for (const { from, to } of edges) {
    const id = artefactId('case', from);
    const known = dependsOn.get(id);
    if (known === undefined) dependsOn.set(id, [artefactId('case', to)]);
    else known.push(artefactId('case', to));
  }
  for (const id of depending) {
    const path = findDependencyCircle(id, (of) => dependsOn.get(of) ?? []);
    if (path !== null) throw new DomainError({ code: 'dependency_circle', path });
  }
}
