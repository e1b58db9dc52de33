import { RISKS, type Risk } from '@caderno/core/basis';
import type { ArtefactId, ConditionId, RequirementId } from '@caderno/core/artefacts';
import { countStandings, type CoverageRow, type StandingCounts } from '@caderno/core/coverage';
import type { Findable } from '@caderno/core/find';
import type { Summary } from './kinds/index.ts';

/** What a head alone does not say, and a query may ask for. */
export interface AroundHead {
  readonly requirement: (id: RequirementId) => { readonly module: string; readonly risk: Risk } | undefined;
  readonly condition: (id: ConditionId) => { readonly requirements: readonly RequirementId[] } | undefined;
  /** The items of a condition or a counted requirement. */
  readonly standings: (id: ArtefactId) => StandingCounts | undefined;
  readonly shows: (id: ArtefactId) => boolean;
}

/** What is known of a project: heads, what coverage says of conditions and cases, and the items of counted requirements (asked only when needed). */
export interface KnownHeads {
  readonly heads: ReadonlyMap<ArtefactId, Summary>;
  readonly rows: ReadonlyMap<string, CoverageRow>;
  readonly requirements: () => ReadonlyMap<ArtefactId, StandingCounts>;
}

/** What heads alone do not say, looked up in all that is known of a project. */
export function aroundHeads({ heads, rows, requirements }: KnownHeads): AroundHead {
  const headOf = <K extends Summary['kind']>(kind: K, id: ArtefactId): Extract<Summary, { kind: K }> | undefined => {
    const head = heads.get(id);
    return head?.kind === kind ? (head as Extract<Summary, { kind: K }>) : undefined;
  };
  return {
    requirement: (id) => headOf('requirement', id),
    condition: (id) => headOf('condition', id),
    standings: (id) => {
      const row = rows.get(id);
      return row?.kind === 'condition' ? countStandings(row.standings) : requirements().get(id);
    },
    shows: (id) => {
      const row = rows.get(id);
      return row?.kind === 'case' && row.shows;
    },
  };
}

/**
 * What of a head a query's fields are held against: a condition has the modules and the risk of its requirements, a case
 * the requirements of its conditions. `more` comes along. What is not the head's own stands before it, and `more` behind:
 * so the engine makes objects of one shape, several times quicker than when names are added to a copy.
 */
export function findableOf<M extends object = object>(head: Summary, around: AroundHead, more: M): Findable & M {
  switch (head.kind) {
    case 'requirement':
      return { modules: [head.module], ...coverageOf(head.id, around), ...head, ...more };
    case 'condition': {
      const on = head.requirements.flatMap((id) => around.requirement(id) ?? []);
      const risk = head.risk ?? RISKS.find((r) => on.some((requirement) => requirement.risk === r)) ?? '';
      return { modules: on.map((r) => r.module), technique: head.model, ...coverageOf(head.id, around), ...head, risk, ...more };
    }
    case 'case':
      return { modules: [head.module], requirements: requirementsOf(head.covers, around), shows: around.shows(head.id), ...head, ...more };
    case 'question':
      return { modules: [head.module], owner: head.asked, ...head, ...more };
    case 'feature':
      return { modules: [head.module], ...head, scenarios: head.scenarios.length, ...more };
    case 'suite':
    case 'shared':
    case 'dataSet':
      return { modules: [head.module], ...head, ...more };
  }
}

function requirementsOf(covers: readonly ConditionId[], around: AroundHead): RequirementId[] {
  return [...new Set(covers.flatMap((id) => around.condition(id)?.requirements ?? []))];
}

function coverageOf(id: ArtefactId, around: AroundHead): Pick<Findable, 'standings'> {
  const standings = around.standings(id);
  return standings === undefined ? {} : { standings };
}
