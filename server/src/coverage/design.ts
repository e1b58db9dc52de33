import type { RequirementId } from '@caderno/core/artefacts';
import type { Design, DesignCondition } from '@caderno/core/coverage';
import type { ConditionLine, QueryOf } from '@caderno/contract';
import { findArtefact } from '../artefacts/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import { libraryOf } from './designLibrary.ts';
import { conditionHeads, designCases, designConditions, designWording, designQuestions, designRequirements, designScenarios, designSettings } from './designRows.ts';

/**
 * The design around a requirement, a condition, a case, a data set or a feature: its conditions, their requirements, and every case that
 * covers one of them and every question about them, so that the coverage of these conditions can be computed from it alone.
 */
export async function readDesign(work: UnitOfWork, projectId: string, around: QueryOf<'readDesign'>): Promise<Design> {
  const conditions = await conditionsAround(work, projectId, around);
  const ids = new Set(conditions.flatMap((c) => c.content.requirements.map((r) => r.id)));
  const requirements = (await designRequirements(work, projectId)).filter((r) => ids.has(r.id));
  // Whoever runs a covering case shows what it shows.
  const covering = `a.project_id = $1 AND a.id IN (
    WITH RECURSIVE covering(id) AS (
      SELECT link.from_id FROM link JOIN artefact k ON k.id = link.to_id WHERE k.project_id = $1 AND k.kind = 'condition' AND k.number = ANY($2)
      UNION SELECT link.from_id FROM link JOIN covering ON link.to_id = covering.id WHERE link.type = 'uses')
    SELECT id FROM covering)`;
  const numbers = conditions.map((c) => Number(c.id.slice(2)));
  const cases = await designCases(work, covering, [projectId, numbers]);
  const scenarios = await designScenarios(work, await designWording(work, projectId), covering, [projectId, numbers]);
  const asking = `a.project_id = $1 AND a.id IN (
    SELECT link.from_id FROM link JOIN artefact s ON s.id = link.to_id WHERE s.project_id = $1 AND ((s.kind = 'condition' AND s.number = ANY($2)) OR (s.kind = 'requirement' AND s.number = ANY($3))))`;
  const questions = await designQuestions(work, asking, [projectId, conditions.map((c) => Number(c.id.slice(2))), requirements.map((r) => Number(r.id.slice(2)))]);
  const library = await libraryOf(work, projectId, [...cases, ...scenarios]);
  return { requirements, conditions, cases: [...cases, ...scenarios], questions, library, ...(await designSettings(work, projectId)) };
}

/** The conditions of a requirement without their models, which may be large and stay in the database. */
export async function listConditions(work: UnitOfWork, projectId: string, requirement: RequirementId): Promise<ConditionLine[]> {
  const { id } = await findArtefact(work, projectId, requirement);
  return conditionHeads(work, 'a.id IN (SELECT from_id FROM link WHERE to_id = $1)', [id]);
}

async function conditionsAround(work: UnitOfWork, projectId: string, around: QueryOf<'readDesign'>): Promise<DesignCondition[]> {
  if (around.requirement !== undefined) {
    const row = await findArtefact(work, projectId, around.requirement);
    return designConditions(work, 'a.id IN (SELECT from_id FROM link WHERE to_id = $1)', [row.id]);
  }
  const carrying = around.case ?? around.dataSet ?? around.feature;
  if (carrying !== undefined) {
    const row = await findArtefact(work, projectId, carrying);
    return designConditions(work, 'a.id IN (SELECT to_id FROM link WHERE from_id = $1)', [row.id]);
  }
  if (around.condition === undefined) return [];
  const row = await findArtefact(work, projectId, around.condition);
  return designConditions(work, 'a.id = $1', [row.id]);
}
