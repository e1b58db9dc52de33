import { artefactId, kindOfId, scenarioId, type CaseId, type CoveringId, type FeatureId } from '@caderno/core/artefacts';
import type { Asking } from '@caderno/core/find';
import { tagTest } from '@caderno/core/scenarios';
import { partsWithRules, type EntryId, type SuiteEntry, type SuiteRule } from '@caderno/core/suites';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { listByQuery } from '../find/index.ts';

/** `only`: whether they find this one, and nothing else. `known`: what rules were found to find already, kept from suite to suite. */
interface Finding {
  readonly only: CaseId | FeatureId | null;
  readonly known: Map<string, CoveringId[]>;
}

/** What the rules of a suite find now, by the part that has the rule, by numbers. Whoever asks is nobody in particular: `is:mine` finds nothing. */
export async function rulesFind(work: UnitOfWork, projectId: string, entries: readonly SuiteEntry[], now: number, { only, known }: Finding = { only: null, known: new Map() }): Promise<Map<EntryId, CoveringId[]>> {
  const found = new Map<EntryId, CoveringId[]>();
  for (const { id, rule } of partsWithRules(entries)) {
    const key = `${rule.of} ${rule.asks}`;
    const ids = known.get(key) ?? (await ruleFinds(work, projectId, rule, { name: '', now }, only));
    known.set(key, ids);
    found.set(id, ids);
  }
  return found;
}

/** A rule that asks for nothing finds nothing: it is being written. */
async function ruleFinds(work: UnitOfWork, projectId: string, { of, asks }: SuiteRule, asking: Asking, only: Finding['only']): Promise<CoveringId[]> {
  if (asks.trim() === '' || (only !== null && kindOfId(only) !== (of === 'cases' ? 'case' : 'feature'))) return [];
  if (of === 'scenarios') return scenariosTagged(work, projectId, asks, only);
  const cases = await listByQuery(work, projectId, 'case', asks, asking, numberOf(only));
  return cases.flatMap((head) => (head.kind === 'case' ? [head.id] : [])).toSorted((a, b) => Number(a.slice(2)) - Number(b.slice(2)));
}

const taggedRow = z.object({ number: z.number(), scenarios: z.array(z.object({ number: z.number(), tags: z.array(z.string()) })) });

/** An expression that is none finds nothing. */
async function scenariosTagged(work: UnitOfWork, projectId: string, expression: string, only: Finding['only']): Promise<CoveringId[]> {
  const test = tagTest(expression);
  if (test === null) return [];
  const rows = await selectRows(work, taggedRow, `SELECT number, facts->'scenarios' AS scenarios FROM artefact WHERE project_id = $1 AND kind = 'feature' AND deleted_at IS NULL AND state <> 'withdrawn' AND ($2::int IS NULL OR number = $2) ORDER BY number`, [projectId, numberOf(only)]);
  return rows.flatMap(({ number, scenarios }) => scenarios.flatMap((s) => (test(s.tags) ? [scenarioId(artefactId('feature', number), s.number)] : [])));
}

function numberOf(only: Finding['only']): number | null {
  return only === null ? null : Number(only.slice(2));
}
