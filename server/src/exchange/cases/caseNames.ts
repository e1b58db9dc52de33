import { artefactId, parseArtefactId, type ConditionId, type RequirementId } from '@caderno/core/artefacts';
import type { CaseFileNames, CaseFileProject } from '@caderno/core/caseFiles';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { artefactKeyRow, selectRows, type UnitOfWork } from '../../database/index.ts';
import { readSettings } from '../../projects/index.ts';

const requirementRow = z.object({ number: z.number(), title: z.string(), origin: z.string().nullable() });
const conditionRow = z.object({ number: z.number(), version: z.number(), requirements: z.array(z.string()) });

/** What of a project files of cases may name, and what their cases grow into. */
export interface CaseNames {
  readonly names: CaseFileNames;
  readonly project: CaseFileProject;
  readonly titleOf: (id: RequirementId) => string;
}

/** Reads it all at once: a file may name any of it. */
export async function readCaseNames(work: UnitOfWork, projectId: string): Promise<CaseNames> {
  const { settings } = await readSettings(work, projectId);
  const requirements = await selectRows(work, requirementRow, `SELECT number, title, facts->>'origin' AS origin FROM artefact WHERE project_id = $1 AND kind = 'requirement' AND deleted_at IS NULL AND state <> 'withdrawn' ORDER BY number DESC`, [projectId]);
  const conditions = await selectRows(work, conditionRow, `SELECT number, head AS version, coalesce(facts->'requirements', '[]') AS requirements FROM artefact WHERE project_id = $1 AND kind = 'condition' AND deleted_at IS NULL AND state <> 'withdrawn' ORDER BY number`, [projectId]);
  const used = await selectRows(work, artefactKeyRow, `SELECT kind, number FROM artefact WHERE project_id = $1 AND kind IN ('shared', 'case') AND deleted_at IS NULL`, [projectId]);
  const byName = new Map<string, RequirementId>();
  // Where several are called the same the first of them is meant; ids come before titles.
  for (const { number, title } of requirements) byName.set(worded(title), artefactId('requirement', number));
  for (const { number, origin } of requirements) if ((origin ?? '') !== '') byName.set(worded(origin ?? ''), artefactId('requirement', number));
  for (const { number } of requirements) byName.set(`r-${number}`, artefactId('requirement', number));
  const versions = new Map(conditions.map((c) => [artefactId('condition', c.number), c.version]));
  const derived = new Map<string, ConditionId[]>();
  for (const { number, requirements: of } of conditions) for (const id of of) derived.set(id, [...(derived.get(id) ?? []), artefactId('condition', number)]);
  const usable = new Set<string>(used.map((u) => artefactId(u.kind, u.number)));
  const titles = new Map(requirements.map((r) => [artefactId('requirement', r.number), r.title]));
  return {
    names: { fields: settings.fields, priorities: settings.priorities, requirement: (name) => byName.get(worded(name)) ?? byName.get(worded(leadingId(name))) ?? null, condition: (id) => versions.has(id), used: (id) => usable.has(id) },
    project: {
      fields: settings.fields,
      constants: new Set(settings.constants.map((c) => c.name)),
      versionOf: (id) => versions.get(id) ?? 1,
      conditionsOf: (id) => derived.get(id) ?? [],
      newId: () => randomUUID().slice(0, 8),
    },
    titleOf: (id) => titles.get(id) ?? id,
  };
}

/** `R-3 Valid reading` names R-3. */
function leadingId(name: string): string {
  const id = /^\s*(R-\d+)\b/i.exec(name)?.[1]?.toUpperCase() ?? '';
  return parseArtefactId(id) === null ? '' : id;
}

function worded(name: string): string {
  return name.trim().replaceAll(/\s+/g, ' ').toLowerCase();
}
