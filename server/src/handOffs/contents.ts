import { artefactId, isCaseId, parseScenarioId, type CoveringId, type FeatureId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { executionOf, scenarioForReading, scenarioMinutes, type FeatureContent } from '@caderno/core/scenarios';
import { keyOf, keysUsed, type Used } from '@caderno/core/shared';
import { z } from 'zod';
import { contentOrBroken, readLibrary } from '../artefacts/index.ts';
import { designWording } from '../coverage/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

/** A case or scenario at an exact version, of a scenario that of its feature. */
export interface Meant {
  readonly of: CoveringId;
  readonly version: number;
}

/** What cases and scenarios say at these versions, scenarios as cases to be executed, and all that they use. What is not there, or cannot be read, is not in it. */
export interface MeantContents {
  readonly contents: ReadonlyMap<CoveringId, CaseContent>;
  readonly library: ReadonlyMap<string, Used>;
}

export async function readContents(work: UnitOfWork, projectId: string, meant: readonly Meant[]): Promise<MeantContents> {
  const contents = new Map<CoveringId, CaseContent>();
  const library = await readLibrary(work, projectId, meant.flatMap(({ of, version }) => (isCaseId(of) ? [keyOf(of, version)] : [])));
  for (const { of, version } of meant) {
    const used = library.get(keyOf(of, version));
    if (used?.kind === 'case') contents.set(of, used.content);
  }
  const scenarios = await readScenarios(work, projectId, meant);
  for (const [of, content] of scenarios) contents.set(of, content);
  const theirs = await readLibrary(work, projectId, [...scenarios.values()].flatMap(keysUsed));
  return { contents, library: new Map([...library, ...theirs]) };
}

const featureRow = z.object({ number: z.number(), version: z.number(), schema: z.number(), content: z.unknown() });

/** Scenarios as whoever executes them reads them; who owns them and what they belong to is said by their feature. */
async function readScenarios(work: UnitOfWork, projectId: string, meant: readonly Meant[]): Promise<Map<CoveringId, CaseContent>> {
  const told = meant.flatMap(({ of, version }) => {
    const scenario = parseScenarioId(of);
    return scenario === null ? [] : [{ of, version, ...scenario }];
  });
  if (told.length === 0) return new Map();
  const features = await readFeatures(work, projectId, told);
  const wording = await designWording(work, projectId);
  const { scenarioExecution } = (await readSettings(work, projectId)).settings;
  return new Map(
    told.flatMap(({ of, version, feature, number }): [CoveringId, CaseContent][] => {
      const content = features.get(keyOf(feature, version));
      const scenario = content === undefined ? null : scenarioForReading(content, number, wording);
      if (content === undefined || scenario === null) return [];
      const { module, owner } = content;
      return [[of, { ...scenario, module, owner, execution: executionOf(scenario.tags, scenarioExecution), estimate: scenarioMinutes(scenario.tags, scenarioExecution) }]];
    }),
  );
}

async function readFeatures(work: UnitOfWork, projectId: string, told: readonly { readonly feature: FeatureId; readonly version: number }[]): Promise<Map<string, FeatureContent>> {
  const records = [...new Map(told.map(({ feature, version }) => [keyOf(feature, version), { number: Number(feature.slice(2)), version }])).values()];
  const rows = await selectRows(
    work,
    featureRow,
    `SELECT a.number, v.version, v.schema, v.content FROM jsonb_to_recordset($1::jsonb) AS k(number int, version int)
     JOIN artefact a ON a.project_id = $2 AND a.kind = 'feature' AND a.number = k.number AND a.deleted_at IS NULL JOIN artefact_version v ON v.artefact_id = a.id AND v.version = k.version`,
    [JSON.stringify(records), projectId],
  );
  return new Map(
    rows.flatMap(({ number, version, schema, content }): [string, FeatureContent][] => {
      const read = contentOrBroken('feature', schema, content);
      return read === null ? [] : [[keyOf(artefactId('feature', number), version), read]];
    }),
  );
}
