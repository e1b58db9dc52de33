import { TRACE_TYPES } from '@caderno/core/artefacts';
import type { NewProject, ProjectRef, ResponseOf } from '@caderno/contract';
import { z } from 'zod';
import { countRow, modelsOf, selectRows, type UnitOfWork } from '../database/index.ts';
import { joinProject, type Membership } from '../people/index.ts';
import { DomainError } from '../domainError.ts';

/** The trace links of a project (parameter 1) whose target changed in meaning since they were made: `isSuspect` of the core, for many at once. */
export const SUSPECT_SQL = `
  FROM link l JOIN artefact s ON s.id = l.from_id JOIN artefact t ON t.id = l.to_id
  WHERE s.project_id = $1 AND l.type IN (${TRACE_TYPES.map((type) => `'${type}'`).join(', ')}) AND l.seen_version < t.meaning_since
    AND s.deleted_at IS NULL AND t.deleted_at IS NULL AND s.state <> 'withdrawn' AND t.state <> 'withdrawn'`;

/** Makes a project with its maker as administrator. */
export async function createProject(work: UnitOfWork, personId: string, { key, name }: NewProject): Promise<ProjectRef & { id: string }> {
  const { Project } = modelsOf(work.db);
  if ((await Project.count({ where: { key }, transaction: work.transaction })) > 0) throw new DomainError({ code: 'project_exists', project: key });
  const maker = await modelsOf(work.db).Person.findByPk(personId, { transaction: work.transaction, rejectOnEmpty: true });
  const project = await Project.create({ key, name, demo: maker.demoJob !== null }, { transaction: work.transaction });
  await joinProject(work, project.id, personId, 'administrator');
  return { id: project.id, key, name, role: 'administrator', sees: null };
}

const kindCountRow = z.object({ kind: z.string(), count: z.number() });

/** A project with the figures its tabs show. Withdrawn artefacts and headings are counted nowhere. */
export async function readProject(work: UnitOfWork, { projectId, role, sees }: Pick<Membership, 'projectId' | 'role' | 'sees'>): Promise<ResponseOf<'readProject'>> {
  const project = await modelsOf(work.db).Project.findByPk(projectId, { transaction: work.transaction, rejectOnEmpty: true });
  const counts = await selectRows(
    work,
    kindCountRow,
    `SELECT kind, count(*)::int AS count FROM artefact WHERE project_id = $1 AND deleted_at IS NULL AND state <> 'withdrawn' AND (kind <> 'requirement' OR facts->>'type' IS DISTINCT FROM 'heading') GROUP BY kind`,
    [projectId],
  );
  const modules = await readModules(work, projectId);
  const [open] = await selectRows(
    work,
    countRow,
    `SELECT count(*)::int AS count FROM artefact WHERE project_id = $1 AND kind = 'question' AND deleted_at IS NULL AND state <> 'withdrawn' AND facts->>'status' = 'open'`,
    [projectId],
  );
  const count = (kind: string): number => counts.find((c) => c.kind === kind)?.count ?? 0;
  return {
    key: project.key,
    name: project.name,
    role,
    sees: sees === null ? null : [...sees],
    modules,
    figures: { requirements: count('requirement'), conditions: count('condition'), cases: count('case'), shared: count('shared') + count('dataSet'), openQuestions: open?.count ?? 0, suspectLinks: await countSuspectLinks(work, projectId), revision: project.revision },
  };
}

const moduleRow = z.object({ module: z.string() });

/** The modules that anything of a project stands in, in their order. */
export async function readModules(work: UnitOfWork, projectId: string): Promise<string[]> {
  const rows = await selectRows(work, moduleRow, `SELECT DISTINCT module FROM artefact WHERE project_id = $1 AND deleted_at IS NULL AND module <> '' ORDER BY module`, [projectId]);
  return rows.map((row) => row.module);
}

export async function countSuspectLinks(work: UnitOfWork, projectId: string): Promise<number> {
  const [suspect] = await selectRows(work, countRow, `SELECT count(*)::int AS count ${SUSPECT_SQL}`, [projectId]);
  return suspect?.count ?? 0;
}
