import type { CaseId, ConditionId, QuestionId, RequirementId } from '../artefacts/index.ts';
import type { Cover } from '../cases/index.ts';
import { ModelJudge, carriedFields, type ConditionContent } from '../conditions/index.ts';
import { conditionCoverage, standingsOf, type ConditionCoverage, type Grounds } from './conditionCoverage.ts';
import type { Design, DesignCase, DesignCondition, DesignQuestion, DesignRequirement, DesignSettings } from './design.ts';
import { caseEvidence, type Evidence } from './evidence.ts';
import { OpenQuestions } from './openQuestions.ts';
import { tallyOf, Totals, type ConditionTally } from './totals.ts';

/** One changed artefact: its new head, or null when it is gone. */
export type DesignChange =
  | { readonly kind: 'requirements'; readonly inOutlineOrder: readonly DesignRequirement[] }
  | { readonly kind: 'condition'; readonly id: ConditionId; readonly condition: DesignCondition | null }
  | { readonly kind: 'case'; readonly id: CaseId; readonly case: DesignCase | null }
  | { readonly kind: 'question'; readonly id: QuestionId; readonly question: DesignQuestion | null }
  | { readonly kind: 'settings'; readonly settings: DesignSettings };

/** All that is known of a condition: lookups by id are the dearest part of a large project, so there is one. */
export interface ConditionEntry {
  readonly id: ConditionId;
  readonly condition: DesignCondition;
  readonly judge: ModelJudge;
  /** Counted cases that cover it, by number. Withdrawn ones are not among them. */
  covering: readonly { readonly id: CaseId; readonly seenVersion: number; readonly evidence: Evidence }[];
  /** Null when the condition is counted nowhere: withdrawn, or of no counted requirement. */
  counted: { readonly grounds: Grounds; readonly tally: ConditionTally } | null;
}

/** A counted requirement with its conditions; `row` is what the report makes of it, until something in it changes. */
export interface RequirementEntry<Row = unknown> {
  readonly requirement: DesignRequirement;
  /** All conditions that link to it, counted or not. */
  readonly conditions: Set<ConditionEntry>;
  row: Row | null;
}

/**
 * The coverage of a project, kept up to date by changes. Mutable inside; what it hands out is not.
 * Always equal to an index made from scratch of the same design (property-tested).
 */
export class CoverageIndex {
  readonly entries = new Map<ConditionId, ConditionEntry>();
  readonly cases = new Map<CaseId, DesignCase>();
  readonly totals = new Totals();
  readonly questions: OpenQuestions;
  #settings: DesignSettings;
  /** In outline order, withdrawn ones left out. */
  requirements = new Map<RequirementId, RequirementEntry>();

  constructor(design: Design) {
    this.#settings = design;
    this.questions = new OpenQuestions(design.questions);
    this.#setRequirements(design.requirements);
    for (const condition of design.conditions) this.#setCondition(condition.id, condition);
    for (const testCase of design.cases) {
      this.cases.set(testCase.id, testCase);
      for (const cover of testCase.content.covers) this.#addEvidence(testCase, cover);
    }
    for (const entry of this.entries.values()) this.#refresh(entry);
  }

  /** The coverage of a counted condition, item by item. */
  coverageOf(id: ConditionId): ConditionCoverage | undefined {
    const counted = this.entries.get(id)?.counted;
    return counted == null ? undefined : conditionCoverage(counted.grounds);
  }

  /** The coverages of all counted conditions, in no order. */
  coverages(): ConditionCoverage[] {
    return [...this.entries.values()].flatMap((e) => (e.counted === null ? [] : [conditionCoverage(e.counted.grounds)]));
  }

  /** Takes in one change and recomputes what depends on it. */
  apply(change: DesignChange): void {
    switch (change.kind) {
      case 'requirements':
        return this.#changeRequirements(change.inOutlineOrder);
      case 'condition':
        return this.#changeCondition(change.id, change.condition);
      case 'case':
        return this.#changeCase(change.id, change.case);
      case 'question':
        return this.#changeQuestion(change.id, change.question);
      case 'settings':
        return this.#changeSettings(change.settings);
    }
  }

  #changeSettings(settings: DesignSettings): void {
    const { mostItems } = this.#settings;
    this.#settings = settings;
    for (const entry of [...this.entries.values()]) {
      if (settings.mostItems === mostItems) this.#refresh(entry);
      else {
        // The limit decides what is judged at all: nothing of before is kept.
        this.#changeCondition(entry.id, null);
        this.#changeCondition(entry.id, entry.condition);
      }
    }
  }

  #setRequirements(requirements: readonly DesignRequirement[]): void {
    const counted = requirements.filter((r) => r.state !== 'withdrawn');
    this.requirements = new Map(counted.map((requirement) => [requirement.id, { requirement, conditions: new Set(), row: null }]));
  }

  #changeRequirements(requirements: readonly DesignRequirement[]): void {
    const before = this.requirements;
    this.#setRequirements(requirements);
    for (const entry of this.entries.values()) {
      const links = entry.condition.content.requirements;
      for (const link of links) this.requirements.get(link.id)?.conditions.add(entry);
      if (links.some(({ id }) => !sameForCoverage(before.get(id)?.requirement, this.requirements.get(id)?.requirement))) this.#refresh(entry);
    }
  }

  #setCondition(id: ConditionId, condition: DesignCondition, judge = new ModelJudge(condition.content, this.#settings.mostItems)): ConditionEntry {
    const entry: ConditionEntry = { id, condition, judge, covering: [], counted: null };
    this.entries.set(id, entry);
    for (const link of condition.content.requirements) this.requirements.get(link.id)?.conditions.add(entry);
    return entry;
  }

  #removeCondition(id: ConditionId): void {
    const entry = this.entries.get(id);
    if (entry === undefined) return;
    this.#uncount(entry);
    this.entries.delete(id);
    for (const link of entry.condition.content.requirements) this.requirements.get(link.id)?.conditions.delete(entry);
  }

  #changeCondition(id: ConditionId, condition: DesignCondition | null): void {
    const before = this.entries.get(id);
    this.#removeCondition(id);
    if (condition === null) return;
    if (before !== undefined && isJudgedAlike(before.condition.content, condition.content)) {
      const entry = this.#setCondition(id, condition, before.judge);
      entry.covering = before.covering;
      this.#refresh(entry);
      return;
    }
    const entry = this.#setCondition(id, condition);
    // Which cases cover a condition that was there is known; for a new one all are asked.
    const covering = before === undefined ? this.cases.values() : before.covering.flatMap((c) => this.cases.get(c.id) ?? []);
    for (const testCase of covering) {
      const cover = testCase.content.covers.find((c) => c.id === id);
      if (cover !== undefined) this.#addEvidence(testCase, cover);
    }
    this.#refresh(entry);
  }

  #changeCase(id: CaseId, testCase: DesignCase | null): void {
    const touched = new Map<ConditionEntry, Evidence | null>();
    for (const cover of this.cases.get(id)?.content.covers ?? []) {
      const entry = this.entries.get(cover.id);
      if (entry === undefined) continue;
      touched.set(entry, entry.covering.find((c) => c.id === id)?.evidence ?? null);
      entry.covering = entry.covering.filter((c) => c.id !== id);
    }
    if (testCase === null) this.cases.delete(id);
    else {
      this.cases.set(id, testCase);
      for (const cover of testCase.content.covers) {
        const entry = this.entries.get(cover.id);
        if (entry === undefined) continue;
        this.#addEvidence(testCase, cover, touched.get(entry) ?? null);
        touched.set(entry, null);
      }
    }
    for (const entry of touched.keys()) this.#refresh(entry);
  }

  #changeQuestion(id: QuestionId, question: DesignQuestion | null): void {
    const subjects = new Set(this.questions.put(id, question));
    for (const entry of this.entries.values()) {
      if (subjects.has(entry.id) || entry.condition.content.requirements.some((r) => subjects.has(r.id))) this.#refresh(entry);
    }
  }

  #addEvidence(testCase: DesignCase, cover: Cover, earlier: Evidence | null = null): void {
    const entry = testCase.state === 'withdrawn' ? undefined : this.entries.get(cover.id);
    if (entry === undefined) return;
    const evidence = caseEvidence(testCase.id, testCase.content, cover, entry.judge, carriedFields(entry.condition.content.model), earlier);
    const covering = { id: testCase.id, seenVersion: cover.seenVersion, evidence };
    const last = entry.covering.at(-1);
    entry.covering = [...entry.covering, covering];
    if (last !== undefined && numberOf(last.id) > numberOf(testCase.id)) entry.covering = entry.covering.toSorted((a, b) => numberOf(a.id) - numberOf(b.id));
  }

  #uncount(entry: ConditionEntry): void {
    if (entry.counted !== null) this.totals.takeAway(entry.counted.tally);
    entry.counted = null;
    for (const link of entry.condition.content.requirements) {
      const requirement = this.requirements.get(link.id);
      if (requirement !== undefined) requirement.row = null;
    }
  }

  #refresh(entry: ConditionEntry): void {
    this.#uncount(entry);
    const { id, condition, judge } = entry;
    const { content } = condition;
    const requirements = condition.state === 'withdrawn' ? [] : content.requirements.flatMap((r) => this.requirements.get(r.id)?.requirement ?? []);
    if (requirements.length === 0) return;
    const suspect = content.requirements.some((link) => link.seenVersion < (requirements.find((r) => r.id === link.id)?.meaningSince ?? 0));
    const covering = entry.covering.map((c) => ({ id: c.id, evidence: c.evidence, suspect: c.seenVersion < condition.meaningSince }));
    const waiting = this.questions.itemsWaiting(id, content.requirements.map((r) => r.id));
    const grounds: Grounds = { id, content, judge, suspect, waiting, covering };
    const weights = this.#settings.riskWeights;
    const weight = content.risk === null ? Math.max(...requirements.map((r) => weights[r.risk])) : weights[content.risk];
    entry.counted = { grounds, tally: tallyOf(standingsOf(grounds), judge.techniques, weight) };
    this.totals.add(entry.counted.tally);
  }
}

function numberOf(id: CaseId): number {
  return Number(id.slice(2));
}

function sameForCoverage(a: DesignRequirement | undefined, b: DesignRequirement | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && a.risk === b.risk && a.meaningSince === b.meaningSince);
}

/** Whether the same items are made and shown: nothing but title, polarity and model decides that. */
function isJudgedAlike(a: ConditionContent, b: ConditionContent): boolean {
  return a.model === b.model && a.title === b.title && a.polarity === b.polarity;
}
