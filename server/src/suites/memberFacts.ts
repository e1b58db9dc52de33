import { ARTEFACT_STATES, artefactId, isCaseId, parseScenarioId, type CaseId, type CoveringId, type FeatureId, type Pin } from '@caderno/core/artefacts';
import { EXECUTIONS } from '@caderno/core/cases';
import type { Choice, DesignCase } from '@caderno/core/coverage';
import { executionOf, outlineOf, scenarioMinutes, scenariosAsCases, instancesOf, type ScenarioExecution } from '@caderno/core/scenarios';
import { keyOf, type LibraryEntry } from '@caderno/core/shared';
import type { Dependency, FoundMember, MemberFacts } from '@caderno/core/suites';
import { z } from 'zod';
import { contentOrBroken, readLibrary } from '../artefacts/index.ts';
import { designWording } from '../coverage/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

/** What is known of members, and the contents of those that are meant at another version than the latest. */
export interface KnownMembers {
  readonly facts: ReadonlyMap<CoveringId, MemberFacts>;
  readonly instead: Choice['instead'];
}

const dependsRow = z.object({ of: z.number(), on: z.number() });

/** What the cases among the members depend on, as they stand now. */
export async function dependenciesOf(work: UnitOfWork, projectId: string, members: readonly FoundMember[]): Promise<Dependency[]> {
  const numbers = members.flatMap((m) => (isCaseId(m.of) ? [Number(m.of.slice(2))] : []));
  const sql = `SELECT f.number AS "of", t.number AS "on" FROM artefact f JOIN link l ON l.from_id = f.id AND l.type = 'dependsOn' JOIN artefact t ON t.id = l.to_id
               WHERE f.project_id = $1 AND f.kind = 'case' AND f.number = ANY($2) AND t.deleted_at IS NULL AND t.state <> 'withdrawn' ORDER BY f.number, t.number`;
  const rows = await selectRows(work, dependsRow, sql, [projectId, numbers]);
  return rows.map((row) => ({ of: artefactId('case', row.of), on: artefactId('case', row.on) }));
}

/** Reads what a suite has to know of its members besides coverage. What is gone is in neither. */
export async function knownMembers(work: UnitOfWork, projectId: string, members: readonly FoundMember[]): Promise<KnownMembers> {
  const cases = await casesOf(work, projectId, members);
  const scenarios = await scenariosOf(work, projectId, members);
  return { facts: new Map([...cases.facts, ...scenarios.facts]), instead: { cases: [...cases.instead.cases, ...scenarios.instead.cases], library: [...cases.instead.library, ...scenarios.instead.library] } };
}

/** The version that a pin means. */
function versionMeant(pinned: Pin, { head, agreed }: { readonly head: number; readonly agreed: number | null }): number {
  if (pinned === 'agreed') return agreed ?? head;
  return pinned ?? head;
}

const caseRow = z.object({ number: z.number(), state: z.enum(ARTEFACT_STATES), head: z.number(), agreed: z.number().nullable(), execution: z.enum(EXECUTIONS), rows: z.number(), minutes: z.number().nullable() });

async function casesOf(work: UnitOfWork, projectId: string, members: readonly FoundMember[]): Promise<KnownMembers> {
  const numbers = members.flatMap((m) => (isCaseId(m.of) ? [Number(m.of.slice(2))] : []));
  const rows = await selectRows(
    work,
    caseRow,
    `SELECT number, state, head, agreed_version AS agreed, coalesce(facts->>'execution', 'byHand') AS execution, coalesce((facts->>'rows')::int, 0) AS rows, (facts->>'estimate')::float8 AS minutes
     FROM artefact WHERE project_id = $1 AND kind = 'case' AND deleted_at IS NULL AND number = ANY($2)`,
    [projectId, numbers],
  );
  const byId = new Map<CoveringId, z.infer<typeof caseRow>>(rows.map((row) => [artefactId('case', row.number), row]));
  const facts = new Map<CoveringId, MemberFacts>();
  const earlier = new Map<CaseId, Pin>();
  for (const { of, pinned } of members) {
    const row = byId.get(of);
    if (row === undefined || !isCaseId(of)) continue;
    const version = versionMeant(pinned, row);
    facts.set(of, { state: row.state, version, head: row.head, execution: row.execution, instances: Math.max(1, row.rows), minutes: row.minutes });
    if (version !== row.head) earlier.set(of, pinned);
  }
  const library = await readLibrary(work, projectId, [...earlier].map(([id, pinned]) => keyOf(id, pinned)));
  const cases: DesignCase[] = [];
  for (const [id, pinned] of earlier) {
    const [used, known] = [library.get(keyOf(id, pinned)), facts.get(id)];
    if (used?.kind !== 'case' || known === undefined) {
      // A version that is not there, or cannot be read: as what is gone.
      facts.delete(id);
      continue;
    }
    facts.set(id, { ...known, execution: used.content.execution, instances: Math.max(1, used.content.rows.length), minutes: used.content.estimate });
    cases.push({ id, state: known.state, version: used.version, content: used.content });
  }
  return { facts, instead: { cases, library: [...library].map(([key, used]): LibraryEntry => ({ key, used })) } };
}

const listed = z.object({ number: z.number(), tags: z.array(z.string()), instances: z.number() });
const featureRow = z.object({ number: z.number(), state: z.enum(ARTEFACT_STATES), head: z.number(), agreed: z.number().nullable(), scenarios: z.array(listed) });
type FeatureRow = z.infer<typeof featureRow>;

async function scenariosOf(work: UnitOfWork, projectId: string, members: readonly FoundMember[]): Promise<KnownMembers> {
  const features = [...new Set(members.flatMap((m) => parseScenarioId(m.of)?.feature ?? []))];
  const none: KnownMembers = { facts: new Map(), instead: { cases: [], library: [] } };
  if (features.length === 0) return none;
  const rows = await selectRows(
    work,
    featureRow,
    `SELECT number, state, head, agreed_version AS agreed, coalesce(facts->'scenarios', '[]') AS scenarios FROM artefact WHERE project_id = $1 AND kind = 'feature' AND deleted_at IS NULL AND number = ANY($2)`,
    [projectId, features.map((id) => Number(id.slice(2)))],
  );
  const byId = new Map<FeatureId, FeatureRow>(rows.map((row) => [artefactId('feature', row.number), row]));
  const { scenarioExecution } = (await readSettings(work, projectId)).settings;
  const read = new EarlierFeatures(work, projectId);
  const facts = new Map<CoveringId, MemberFacts>();
  const cases: DesignCase[] = [];
  for (const { of, pinned } of members) {
    const scenario = parseScenarioId(of);
    const row = scenario === null ? undefined : byId.get(scenario.feature);
    if (scenario === null || row === undefined) continue;
    const version = versionMeant(pinned, row);
    const earlier = version === row.head ? null : await read.at(scenario.feature, version);
    const told = (earlier?.listed ?? (version === row.head ? row.scenarios : [])).find((s) => s.number === scenario.number);
    if (told === undefined) continue;
    facts.set(of, { state: row.state, version, head: row.head, ...effortOf(told, scenarioExecution) });
    const asCase = earlier?.cases.get(of);
    if (asCase !== undefined) cases.push({ id: of, state: row.state, version, content: asCase });
  }
  return { facts, instead: { cases, library: [] } };
}

function effortOf({ tags, instances }: z.infer<typeof listed>, execution: ScenarioExecution): Pick<MemberFacts, 'execution' | 'instances' | 'minutes'> {
  return { execution: executionOf(tags, execution), instances, minutes: scenarioMinutes(tags, execution) };
}

interface EarlierFeature {
  readonly listed: readonly z.infer<typeof listed>[];
  readonly cases: ReadonlyMap<CoveringId, DesignCase['content']>;
}

const contentRow = z.object({ schema: z.number(), content: z.unknown() });

/** Earlier versions of features, each read once. */
class EarlierFeatures {
  readonly #work: UnitOfWork;
  readonly #projectId: string;
  readonly #read = new Map<string, EarlierFeature | null>();

  constructor(work: UnitOfWork, projectId: string) {
    this.#work = work;
    this.#projectId = projectId;
  }

  async at(id: FeatureId, version: number): Promise<EarlierFeature | null> {
    const key = keyOf(id, version);
    const known = this.#read.get(key);
    if (known !== undefined) return known;
    const read = await this.#readAt(id, version);
    this.#read.set(key, read);
    return read;
  }

  async #readAt(id: FeatureId, version: number): Promise<EarlierFeature | null> {
    const sql = `SELECT v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = $3 WHERE a.project_id = $1 AND a.kind = 'feature' AND a.number = $2 AND a.deleted_at IS NULL`;
    const [row] = await selectRows(this.#work, contentRow, sql, [this.#projectId, Number(id.slice(2)), version]);
    const content = row === undefined ? null : contentOrBroken('feature', row.schema, row.content);
    if (content === null) return null;
    const scenarios = outlineOf(content).scenarios.filter((s) => s.kind === 'scenario');
    const wording = await designWording(this.#work, this.#projectId);
    return {
      listed: scenarios.map((s) => ({ number: s.number, tags: [...s.tags], instances: instancesOf(s) })),
      cases: new Map(scenariosAsCases(id, content, wording).map((s) => [s.id, s.content])),
    };
  }
}
