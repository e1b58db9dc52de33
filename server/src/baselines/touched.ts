import { ARTEFACT_KINDS, artefactId, kindOfId, parseArtefactId, scenarioId, type ArtefactId, type ConditionId, type FeatureId, type RequirementId } from '@caderno/core/artefacts';
import { byId, changedItem, type FrozenChange } from '@caderno/core/baselines';
import { touchedScenarios, type TouchedMember } from '@caderno/core/suites';
import type { AskTouched, ResponseOf } from '@caderno/contract';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { ChangedRows, contentAt, type Changed } from './changedRows.ts';
import { CHANGED_ROWS, MEANS_LATEST } from './reached.ts';
import { changesBetween } from './read.ts';
import { settingsBetween } from './settingsBetween.ts';

/** What constants that changed stand in, by id, with their names. */
type Naming = ReadonlyMap<ArtefactId, readonly string[]>;

/** The cases and scenarios, as they are now, that a change touches: another one themselves, or using or covering what changed, all the way down; constants too. */
export async function findTouched(work: UnitOfWork, projectId: string, asked: AskTouched): Promise<ResponseOf<'findTouched'>> {
  const changed: Changed = 'ids' in asked ? new Map(asked.ids.map((id) => [id, null])) : new Map((await changesBetween(work, projectId, asked.from, asked.to)).flatMap(meantBy));
  const constants = 'ids' in asked ? [] : (await settingsBetween(work, projectId, asked.from, asked.to)).constants;
  const naming = await readNaming(work, projectId, constants);
  const reached = await readTouching(work, projectId, [...new Set([...changed.keys(), ...naming.keys()])]);
  const conditions = new Set(reached.flatMap((r): ConditionId[] => (r.kind === 'condition' ? [artefactId('condition', r.number)] : [])));
  const touched: TouchedMember[] = [];
  const rows = new ChangedRows(work, projectId, changed);
  for (const { kind, number, through: all } of reached) {
    const through = all.filter((id) => changed.has(id));
    const named = [...new Set(all.flatMap((id) => naming.get(id) ?? []))].sort();
    if (kind === 'case') touched.push({ of: artefactId('case', number), through, constants: named, rows: named.length > 0 ? null : await rows.of(artefactId('case', number), through) });
    if (kind === 'feature') touched.push(...(await scenariosTouched(work, projectId, artefactId('feature', number), { all, through, changed, conditions, naming })));
  }
  return { changed: changed.size, constants, touched };
}

const namingRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number(), names: z.array(z.string()) });

/** What some constants stand in, as it is now. A parameter of the same name stands before a constant; what has one is among them all the same. */
async function readNaming(work: UnitOfWork, projectId: string, names: readonly string[]): Promise<Naming> {
  if (names.length === 0) return new Map();
  const rows = await selectRows(
    work,
    namingRow,
    `WITH named AS (SELECT a.kind, a.number, ARRAY(SELECT n FROM unnest($2::text[]) AS n WHERE strpos(v.content::text, substr(to_jsonb('<' || n || '>')::text, 2, length(to_jsonb('<' || n || '>')::text) - 2)) > 0) AS names
       FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head
       WHERE a.project_id = $1 AND a.kind IN ('case', 'shared', 'dataSet', 'feature') AND a.state <> 'withdrawn' AND a.deleted_at IS NULL)
     SELECT kind, number, names FROM named WHERE names <> '{}' ORDER BY kind, number`,
    [projectId, names],
  );
  return new Map(rows.map((row) => [artefactId(row.kind, row.number), row.names]));
}

/** A change of place, owner or state touches nothing. */
function meantBy(change: FrozenChange): [ArtefactId, number | null][] {
  switch (change.kind) {
    case 'added':
      return [[changedItem(change).id, null]];
    case 'changed':
      return change.meant ? [[change.to.id, change.from.version]] : [];
    case 'gone':
      return [[change.from.id, change.from.version]];
    case 'state':
      return [];
  }
}

interface Reached {
  readonly kind: 'case' | 'feature' | 'condition';
  readonly number: number;
  readonly through: readonly ArtefactId[];
}

const keyed = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number() });
const reachedRow = z.object({ kind: z.enum(['case', 'feature', 'condition']), number: z.number(), through: z.array(keyed) });

/** What is not withdrawn and stands above something that changed. */
async function readTouching(work: UnitOfWork, projectId: string, changed: readonly ArtefactId[]): Promise<Reached[]> {
  const rows = await selectRows(
    work,
    reachedRow,
    `WITH RECURSIVE ${CHANGED_ROWS},
     up AS (
       SELECT id AS source, id AS at FROM changed
       UNION SELECT up.source, l.from_id FROM up JOIN link l ON l.to_id = up.at JOIN artefact t ON t.id = l.to_id
       WHERE l.type IN ('covers', 'derives') OR (l.type = 'uses' AND ${MEANS_LATEST}))
     SELECT a.kind, a.number, json_agg(DISTINCT jsonb_build_object('kind', c.kind, 'number', c.number)) AS through
     FROM up JOIN changed c ON c.id = up.source JOIN artefact a ON a.id = up.at
     WHERE a.kind IN ('case', 'feature', 'condition') AND a.state <> 'withdrawn' AND a.deleted_at IS NULL
     GROUP BY a.kind, a.number ORDER BY a.kind, a.number`,
    [projectId, JSON.stringify(changed.flatMap((id) => parseArtefactId(id) ?? []))],
  );
  return rows.map((row) => ({ ...row, through: row.through.map((t) => artefactId(t.kind, t.number)).sort(byId) }));
}

interface Touching {
  /** What changed, and what constants that changed stand in. */
  readonly all: readonly ArtefactId[];
  readonly through: readonly ArtefactId[];
  readonly changed: Changed;
  readonly conditions: ReadonlySet<ConditionId>;
  readonly naming: Naming;
}

/** Which scenarios of a feature it is; none of one that cannot be read. */
async function scenariosTouched(work: UnitOfWork, projectId: string, id: FeatureId, { all, through, changed, conditions, naming }: Touching): Promise<TouchedMember[]> {
  const now = await contentAt(work, projectId, 'feature', id, null);
  if (now === null) return [];
  const earlier = changed.get(id);
  const before = earlier === undefined ? {} : { before: earlier === null ? null : await contentAt(work, projectId, 'feature', id, earlier) };
  const requirements = new Set(through.flatMap((t): RequirementId[] => {
    const parsed = parseArtefactId(t);
    return parsed?.kind === 'requirement' ? [artefactId('requirement', parsed.number)] : [];
  }));
  const below = all.filter((t) => ['shared', 'case', 'dataSet'].includes(kindOfId(t)));
  const named = below.flatMap((t) => naming.get(t) ?? []);
  return touchedScenarios(now, { ...before, conditions, requirements, used: below.length > 0, constants: naming.get(id) ?? [] }).map(({ number, constants }) => ({ of: scenarioId(id, number), through, constants: [...new Set([...constants, ...named])].sort(), rows: null }));
}
