import { artefactId, isCaseId, parseScenarioId, type CoveringId } from '@caderno/core/artefacts';
import type { MemberFacts } from '@caderno/core/suites';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';

const saidRow = z.object({ number: z.number(), words: z.string() });

/**
 * What has to be there before members begin, where something is said: the preconditions of a case at the version that is meant, the feature of a
 * scenario. Of preconditions, which may be long, a hash: only whether they are the same is asked, and spaces and capitals make no difference.
 */
export async function setUpsOf(work: UnitOfWork, projectId: string, facts: ReadonlyMap<CoveringId, MemberFacts>): Promise<Map<CoveringId, string>> {
  const cases = [...facts].flatMap(([of, { version }]) => (isCaseId(of) ? [{ number: Number(of.slice(2)), version }] : []));
  const sql = String.raw`SELECT a.number, md5(said.words) AS words
                         FROM unnest($2::int[], $3::int[]) AS meant (number, version)
                         JOIN artefact a ON a.project_id = $1 AND a.kind = 'case' AND a.number = meant.number AND a.deleted_at IS NULL
                         JOIN artefact_version v ON v.artefact_id = a.id AND v.version = meant.version,
                         LATERAL (SELECT lower(btrim(regexp_replace(v.content->>'preconditions', '\s+', ' ', 'g'))) AS words) said
                         WHERE said.words <> ''`;
  const rows = await selectRows(work, saidRow, sql, [projectId, cases.map((c) => c.number), cases.map((c) => c.version)]);
  const scenarios = [...facts.keys()].flatMap((of): [CoveringId, string][] => {
    const scenario = parseScenarioId(of);
    return scenario === null ? [] : [[of, scenario.feature]];
  });
  return new Map([...rows.map((row): [CoveringId, string] => [artefactId('case', row.number), row.words]), ...scenarios]);
}
