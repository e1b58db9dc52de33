import type { NewProject, ProjectRef, ResponseOf, Role } from '@caderno/contract';
import { modelsOf, selectRows, type Work } from '../database/index.ts';
import { joinProject } from '../people/index.ts';
import { Refused } from '../refused.ts';

/** Makes a project with its maker as administrator. */
export async function createProject(work: Work, personId: string, { key, name }: NewProject): Promise<ProjectRef & { id: string }> {
  const { Project } = modelsOf(work.db);
  if ((await Project.count({ where: { key }, transaction: work.transaction })) > 0) throw new Refused({ code: 'project_exists', project: key });
  const project = await Project.create({ key, name }, { transaction: work.transaction });
  await joinProject(work, project.id, personId, 'administrator');
  return { id: project.id, key, name, role: 'administrator' };
}

/** A project with the figures its tabs show. Withdrawn artefacts are counted nowhere. */
export async function readProject(work: Work, projectId: string, role: Role): Promise<ResponseOf<'readProject'>> {
  const project = await modelsOf(work.db).Project.findByPk(projectId, { transaction: work.transaction, rejectOnEmpty: true });
  const counts = await selectRows<{ kind: string; count: number }>(
    work,
    `SELECT kind, count(*)::int AS count FROM artefact WHERE project_id = $1 AND deleted_at IS NULL AND state <> 'withdrawn' GROUP BY kind`,
    [projectId],
  );
  const modules = await selectRows<{ module: string }>(
    work,
    `SELECT DISTINCT module FROM artefact WHERE project_id = $1 AND deleted_at IS NULL AND module <> '' ORDER BY module`,
    [projectId],
  );
  const count = (kind: string): number => counts.find((c) => c.kind === kind)?.count ?? 0;
  return {
    key: project.key,
    name: project.name,
    role,
    modules: modules.map((m) => m.module),
    figures: { requirements: count('requirement'), conditions: count('condition'), cases: count('case'), revision: project.revision },
  };
}
