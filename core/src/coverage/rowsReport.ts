import type { ArtefactState, CaseId, CoveringId, ConditionId, RequirementId } from '../artefacts/index.ts';
import { orderOutline, type OutlinePlace, type RequirementType, type Risk } from '../basis/index.ts';
import type { CaseRow, ConditionRow, CoverageRow } from './coverageRows.ts';
import { assembleReport, requirementRow, type CaseMark, type CoverageReport, type Effort, type RequirementCoverage } from './report.ts';
import { tallyOf, Totals, type ConditionTally } from './totals.ts';

/** What the report needs to know of the artefacts besides their rows: no contents. */
export interface ReportHeads {
  readonly requirements: readonly (OutlinePlace & { readonly title: string; readonly module: string; readonly risk: Risk; readonly state: ArtefactState; readonly type: RequirementType })[];
  readonly conditions: readonly { readonly id: ConditionId; readonly requirements: readonly RequirementId[] }[];
  readonly cases: readonly CaseHead[];
}

export interface CaseHead {
  readonly id: CaseId;
  readonly state: ArtefactState;
  /** Of its own. */
  readonly rows: number;
  readonly estimate: number | null;
  readonly covers: readonly ConditionId[];
}

/**
 * The report of a project made of heads and coverage rows alone: the same as {@link coverageReport} of an index when
 * both are of one revision (property-tested). While rows are behind the heads it is what is known so far.
 */
export function reportOfRows(heads: ReportHeads, rows: ReadonlyMap<string, CoverageRow>): CoverageReport {
  const totals = new Totals();
  const byRequirement = new Map<RequirementId, ConditionRow[]>();
  for (const { id, requirements } of heads.conditions) {
    const row = rows.get(id);
    if (row?.kind !== 'condition') continue;
    totals.add(tallyOfRow(row));
    for (const requirement of requirements) {
      const group = byRequirement.get(requirement);
      if (group === undefined) byRequirement.set(requirement, [row]);
      else group.push(row);
    }
  }
  const counted = orderOutline(heads.requirements).flatMap(({ place }) => (place.state === 'withdrawn' || place.type === 'heading' ? [] : [place]));
  const requirements = counted.map((requirement) => keptRow(requirement, byRequirement.get(requirement.id) ?? NO_ROWS));
  return assembleReport(requirements, totals, effortOf(heads.cases, rows));
}

type RequirementHead = ReportHeads['requirements'][number];

const NO_ROWS: readonly ConditionRow[] = [];
const keptRows = new WeakMap<RequirementHead, { readonly of: readonly ConditionRow[]; readonly row: RequirementCoverage }>();

/** Heads and rows never change: the row of a requirement is made again only when one of them is another. */
function keptRow(requirement: RequirementHead, of: readonly ConditionRow[]): RequirementCoverage {
  const kept = keptRows.get(requirement);
  if (kept !== undefined && kept.of.length === of.length && of.every((row, i) => row === kept.of[i])) return kept.row;
  const row = requirementRow(requirement, of.map((r) => ({ id: r.id, tally: tallyOfRow(r) })));
  keptRows.set(requirement, { of, row });
  return row;
}

/** Rows never change: what they come to is counted once. */
const tallies = new WeakMap<ConditionRow, ConditionTally>();

function tallyOfRow(row: ConditionRow): ConditionTally {
  const known = tallies.get(row);
  if (known !== undefined) return known;
  const tally = tallyOf(row.standings, row.techniques, row.weight);
  tallies.set(row, tally);
  return tally;
}

function effortOf(cases: readonly CaseHead[], rows: ReadonlyMap<string, CoverageRow>): Effort {
  let [count, instances, minutes] = [0, 0, 0];
  for (const head of cases) {
    if (head.state === 'withdrawn') continue;
    const own = instancesOf(head, caseRow(rows, head.id));
    count += 1;
    instances = Math.min(instances + own, Number.MAX_SAFE_INTEGER);
    minutes += own * (head.estimate ?? 0);
  }
  return { cases: count, instances, minutes };
}

/** How often a case is executed: as often as its row says, otherwise once for each of its own rows, and once without any. */
export function instancesOf(head: Pick<CaseHead, 'rows'>, row: CaseRow | undefined): number {
  return row?.counts?.instances ?? Math.max(1, head.rows);
}

/** What a case that is not withdrawn comes to. */
export function markOf(head: Pick<CaseHead, 'covers'>, row: CaseRow | undefined): CaseMark {
  return row?.shows === true ? 'shows' : head.covers.length > 0 ? 'linked' : 'nothing';
}

export function caseRow(rows: ReadonlyMap<string, CoverageRow>, id: CoveringId): CaseRow | undefined {
  const row = rows.get(id);
  return row?.kind === 'case' ? row : undefined;
}
