import type { CaseId, ConditionId, RequirementId } from '../artefacts/index.ts';
import { RISK_WEIGHT } from '../basis/index.ts';
import type { Technique } from '../conditions/index.ts';
import { TECHNIQUE_OF_ITEM, TECHNIQUES } from '../conditions/index.ts';
import { conditionCoverage, type ConditionCoverage, type CoveringCase } from './conditionCoverage.ts';
import type { Design, DesignCase, DesignCondition, DesignRequirement } from './design.ts';
import { caseEvidence, modelJudge, type Evidence, type ModelJudge } from './evidence.ts';
import { NO_ITEMS, addCounts, countStandings, type Standing, type StandingCounts } from './standing.ts';

/** One changed artefact: its new head, or null when it is gone. */
export type DesignChange =
  | { readonly kind: 'requirements'; readonly inOutlineOrder: readonly DesignRequirement[] }
  | { readonly kind: 'condition'; readonly id: ConditionId; readonly condition: DesignCondition | null }
  | { readonly kind: 'case'; readonly id: CaseId; readonly case: DesignCase | null };

/** Counts of one condition, kept so that a project's numbers are sums. */
export interface ConditionTally {
  readonly counts: StandingCounts;
  readonly byTechnique: Readonly<Record<Technique, StandingCounts>>;
  readonly standings: readonly Standing[];
  readonly weight: number;
}

/**
 * The coverage of a project, kept up to date by changes. Mutable inside; what it hands out is not.
 * Always equal to an index made from scratch of the same design (property-tested).
 */
export class CoverageIndex {
  requirements: readonly DesignRequirement[] = [];
  readonly conditions = new Map<ConditionId, DesignCondition>();
  readonly cases = new Map<CaseId, DesignCase>();
  readonly coverages = new Map<ConditionId, ConditionCoverage>();
  readonly tallies = new Map<ConditionId, ConditionTally>();
  readonly #requirementById = new Map<RequirementId, DesignRequirement>();
  readonly #judges = new Map<ConditionId, ModelJudge>();
  /** Counted cases by condition, with their evidence. Withdrawn cases have no entry. */
  readonly #evidence = new Map<ConditionId, Map<CaseId, Evidence>>();

  constructor(design: Design) {
    this.#setRequirements(design.requirements);
    for (const condition of design.conditions) this.#setCondition(condition.id, condition);
    for (const testCase of design.cases) this.#setCase(testCase.id, testCase);
    for (const id of this.conditions.keys()) this.#refresh(id);
  }

  /** Takes in one change and recomputes what depends on it. */
  apply(change: DesignChange): void {
    switch (change.kind) {
      case 'requirements':
        return this.#changeRequirements(change.inOutlineOrder);
      case 'condition':
        this.#setCondition(change.id, change.condition);
        for (const testCase of this.cases.values()) {
          if (testCase.content.covers.some((c) => c.id === change.id)) this.#addEvidence(testCase, change.id);
        }
        return this.#refresh(change.id);
      case 'case': {
        const touched = new Set([...this.#coveredBy(change.id), ...(change.case?.content.covers.map((c) => c.id) ?? [])]);
        this.#setCase(change.id, change.case);
        for (const id of touched) this.#refresh(id);
      }
    }
  }

  #coveredBy(id: CaseId): ConditionId[] {
    return this.cases.get(id)?.content.covers.map((c) => c.id) ?? [];
  }

  #setRequirements(requirements: readonly DesignRequirement[]): void {
    this.requirements = requirements.filter((r) => r.state !== 'withdrawn');
    this.#requirementById.clear();
    for (const requirement of this.requirements) this.#requirementById.set(requirement.id, requirement);
  }

  #changeRequirements(requirements: readonly DesignRequirement[]): void {
    const before = new Map(this.#requirementById);
    this.#setRequirements(requirements);
    for (const condition of this.conditions.values()) {
      const touched = condition.content.requirements.some(({ id }) => !sameForCoverage(before.get(id), this.#requirementById.get(id)));
      if (touched) this.#refresh(condition.id);
    }
  }

  #setCondition(id: ConditionId, condition: DesignCondition | null): void {
    this.#evidence.delete(id);
    if (condition === null) {
      this.conditions.delete(id);
      this.#judges.delete(id);
      return;
    }
    this.conditions.set(id, condition);
    this.#judges.set(id, modelJudge(condition.content.model));
  }

  #setCase(id: CaseId, testCase: DesignCase | null): void {
    for (const condition of this.#coveredBy(id)) this.#evidence.get(condition)?.delete(id);
    if (testCase === null) {
      this.cases.delete(id);
      return;
    }
    this.cases.set(id, testCase);
    for (const cover of testCase.content.covers) this.#addEvidence(testCase, cover.id);
  }

  #addEvidence(testCase: DesignCase, id: ConditionId): void {
    const judge = this.#judges.get(id);
    const cover = testCase.content.covers.find((c) => c.id === id);
    if (testCase.state === 'withdrawn' || judge === undefined || cover === undefined) return;
    const evidence = this.#evidence.get(id) ?? new Map<CaseId, Evidence>();
    evidence.set(testCase.id, caseEvidence(testCase.id, testCase.content, cover, judge));
    this.#evidence.set(id, evidence);
  }

  #refresh(id: ConditionId): void {
    const condition = this.conditions.get(id);
    const requirements = condition?.content.requirements.flatMap((r) => this.#requirementById.get(r.id) ?? []) ?? [];
    const counted = condition !== undefined && condition.state !== 'withdrawn' && requirements.length > 0;
    if (!counted) {
      this.coverages.delete(id);
      this.tallies.delete(id);
      return;
    }
    const coverage = conditionCoverage(id, condition.content, this.#hangsOnSuspect(condition), this.#covering(condition));
    const weight = condition.content.risk === null ? Math.max(...requirements.map((r) => RISK_WEIGHT[r.risk])) : RISK_WEIGHT[condition.content.risk];
    this.coverages.set(id, coverage);
    this.tallies.set(id, tally(coverage, weight));
  }

  #hangsOnSuspect(condition: DesignCondition): boolean {
    return condition.content.requirements.some((link) => link.seenVersion < (this.#requirementById.get(link.id)?.meaningSince ?? 0));
  }

  #covering(condition: DesignCondition): CoveringCase[] {
    return [...(this.#evidence.get(condition.id) ?? [])].map(([id, evidence]) => {
      const cover = this.cases.get(id)?.content.covers.find((c) => c.id === condition.id);
      return { id, evidence, suspect: (cover?.seenVersion ?? 0) < condition.meaningSince };
    });
  }
}

function sameForCoverage(a: DesignRequirement | undefined, b: DesignRequirement | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && a.risk === b.risk && a.meaningSince === b.meaningSince);
}

function tally(coverage: ConditionCoverage, weight: number): ConditionTally {
  const byTechnique: Record<Technique, StandingCounts> = { partitions: NO_ITEMS, boundaries: NO_ITEMS, plain: NO_ITEMS };
  for (const technique of TECHNIQUES) {
    byTechnique[technique] = countStandings(coverage.items.filter((i) => TECHNIQUE_OF_ITEM[i.item.kind] === technique).map((i) => i.standing));
  }
  const standings = coverage.items.map((i) => i.standing);
  return { counts: countStandings(standings), byTechnique, standings, weight };
}

/** Sums tallies; `weighted` multiplies each by its weight. */
export function sumTallies(tallies: Iterable<ConditionTally>, weighted = false): StandingCounts {
  let sum = NO_ITEMS;
  for (const t of tallies) sum = addCounts(sum, weighted ? countStandings(t.standings, t.weight) : t.counts);
  return sum;
}
