import { scenarioId, artefactId, type CaseId, type CoveringId } from '@caderno/core/artefacts';
import { EMPTY_SUITE, entryId, type SuiteContent, type SuiteEntry } from '@caderno/core/suites';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

const pinned = z.literal('agreed').nullable().default(null);
/** Configurations by their names. */
const configurationNames = z.array(z.string()).nullable().default(null);
const rule = z.strictObject({ of: z.enum(['cases', 'scenarios']), asks: z.string(), pinned });

/** Suites, their members by titles of cases and names of scenarios. */
export const suitesDocument = z.array(
  z.strictObject({
    title: z.string(),
    purpose: z.string(),
    folder: z.string(),
    module: z.string(),
    owner: z.string(),
    tags: z.array(z.string()),
    by: z.string(),
    daysAgo: z.number(),
    configurations: z.array(z.string()).default([]),
    entries: z.array(z.union([z.strictObject({ part: z.string(), depth: z.int().default(1), rule: rule.nullable().default(null), runsIn: configurationNames }), z.strictObject({ case: z.string(), pinned, runsIn: configurationNames }), z.strictObject({ scenario: z.string(), pinned, runsIn: configurationNames })])),
  }),
);
type DemoSuite = z.infer<typeof suitesDocument>[number];

/** The content of a suite of the demo. */
export async function suiteContent(work: UnitOfWork, projectId: string, demo: DemoSuite, caseOf: (title: string) => CaseId): Promise<SuiteContent> {
  const { entries, title, purpose, folder, module, owner, tags } = demo;
  const there = (await readSettings(work, projectId)).settings.configurations;
  const idOf = (name: string): string => {
    const found = there.find((c) => c.name === name);
    if (found === undefined) throw new Error(`The demo’s suites run in configurations of its settings: expected one called '${name}'`);
    return found.id;
  };
  const lines: SuiteEntry[] = [];
  for (const [i, entry] of entries.entries()) {
    const id = entryId(`e${i + 1}`);
    const runsIn = entry.runsIn?.map(idOf) ?? null;
    if ('part' in entry) lines.push({ kind: 'part', id, title: entry.part, depth: entry.depth, rule: entry.rule, runsIn });
    else lines.push({ kind: 'member', id, of: 'case' in entry ? caseOf(entry.case) : await scenarioCalled(work, projectId, entry.scenario), pinned: entry.pinned, runsIn });
  }
  return { ...EMPTY_SUITE, title, purpose, folder, module, owner, tags, configurations: demo.configurations.map(idOf), entries: lines };
}

const foundRow = z.object({ feature: z.number(), number: z.number() });

async function scenarioCalled(work: UnitOfWork, projectId: string, name: string): Promise<CoveringId> {
  const sql = `SELECT a.number AS feature, (s->>'number')::int AS number FROM artefact a, jsonb_array_elements(a.facts->'scenarios') AS s WHERE a.project_id = $1 AND a.kind = 'feature' AND s->>'name' = $2`;
  const [found] = await selectRows(work, foundRow, sql, [projectId, name]);
  if (found === undefined) throw new Error(`The demo’s suites name scenarios that stand in its features: expected one called '${name}'`);
  return scenarioId(artefactId('feature', found.feature), found.number);
}
