import { compareCovering, isCaseId, isSuspect, parseScenarioId, type CoveringId, type FeatureId, type ConditionId, type QuestionId, type RequirementId } from '../artefacts/index.ts';
import { isUse, parametersIn } from '../cases/index.ts';
import { ModelJudge, carriedFields, type ConditionContent } from '../conditions/index.ts';
import { allRows, constantsByName, keysUsed, keysUsedIn, openCase, runsOf, type Constants, type Library, type OpenedCase, type Used } from '../shared/index.ts';
import { openedCounts, ownCounts, type CaseCounts } from './caseCounts.ts';
import { CaseUses } from './caseUses.ts';
import { conditionCoverage, standingsOf, type ConditionCoverage, type CoveringCase, type Grounds } from './conditionCoverage.ts';
import type { Design, DesignCase, DesignCondition, DesignLibrary, DesignQuestion, DesignRequirement, DesignSettings } from './design.ts';
import { caseEvidence, type Evidence } from './evidence.ts';
import { conditionsCovered, openedEvidence } from './openedEvidence.ts';
import { OpenQuestions } from './openQuestions.ts';
import { tallyOf, Totals, type ConditionTally } from './totals.ts';

/** One changed artefact: its new head, or null when it is gone. */
export type DesignChange =
  | { readonly kind: 'requirements'; readonly inOutlineOrder: readonly DesignRequirement[] }
  | { readonly kind: 'condition'; readonly id: ConditionId; readonly condition: DesignCondition | null }
  | { readonly kind: 'case'; readonly id: CoveringId; readonly case: DesignCase | null }
  /** All scenarios that a feature has now; none when it is gone. */
  | { readonly kind: 'feature'; readonly id: FeatureId; readonly scenarios: readonly DesignCase[] }
  /** What was added or changed of the library, and the keys of what is gone from it. */
  | { readonly kind: 'library'; readonly entries: DesignLibrary; readonly gone: readonly string[] }
  | { readonly kind: 'question'; readonly id: QuestionId; readonly question: DesignQuestion | null }
  | { readonly kind: 'settings'; readonly settings: DesignSettings };

/** All that is known of a condition: lookups by id are the dearest part of a large project, so there is one. */
export interface ConditionEntry {
  readonly id: ConditionId;
  readonly condition: DesignCondition;
  readonly judge: ModelJudge;
  /** Counted cases and scenarios that cover it, in their order. Withdrawn ones are not among them. */
  covering: readonly { readonly id: CoveringId; readonly seenVersion: number; readonly evidence: Evidence }[];
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
  readonly cases = new Map<CoveringId, DesignCase>();
  readonly totals = new Totals();
  readonly #library = new Map<string, Used>();
  /** The cases and the library together. */
  readonly #everything: Library = { get: (key) => this.#used(key) };
  readonly #uses = new CaseUses();
  /** The conditions that cases which use others cover, themselves or through those. */
  readonly #covered = new Map<CoveringId, ReadonlyMap<ConditionId, number>>();
  readonly questions: OpenQuestions;
  #settings: DesignSettings;
  #constants: Constants;
  /** In outline order, withdrawn ones and headings left out. */
  requirements = new Map<RequirementId, RequirementEntry>();

  constructor(design: Design) {
    this.#settings = design;
    this.#constants = constantsByName(design.constants);
    this.questions = new OpenQuestions(design.questions);
    this.#setRequirements(design.requirements);
    for (const condition of design.conditions) this.#setCondition(condition.id, condition);
    for (const entry of design.library) this.#putUsed(entry.key, entry.used);
    for (const testCase of design.cases) this.#putCase(testCase.id, testCase);
    for (const testCase of design.cases) this.#addCase(testCase, null);
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
      case 'feature':
        return this.#changeFeature(change.id, change.scenarios);
      case 'library':
        return this.#changeLibrary(change.entries, change.gone);
      case 'question':
        return this.#changeQuestion(change.id, change.question);
      case 'settings':
        return this.#changeSettings(change.settings);
    }
  }

  #changeSettings(settings: DesignSettings): void {
    const { mostItems } = this.#settings;
    const opened = [...this.cases.values()].filter((c) => this.#isOpened(c));
    this.#changeUsed(opened.map((c) => c.id), () => (this.#constants = constantsByName(settings.constants)));
    const more = [...this.cases.values()].filter((c) => this.#isOpened(c) && !opened.includes(c));
    this.#changeUsed(more.map((c) => c.id), () => undefined);
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
    const counted = requirements.filter((r) => r.state !== 'withdrawn' && r.type !== 'heading');
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
    const covering = before === undefined ? [...this.cases.values()].filter((c) => this.#covers(c, id)) : before.covering.flatMap((c) => this.cases.get(c.id) ?? []);
    for (const testCase of covering) this.#addEvidence(testCase, entry, null);
    this.#refresh(entry);
  }

  #covers(testCase: DesignCase, id: ConditionId): boolean {
    return this.#covered.get(testCase.id)?.has(id) ?? testCase.content.covers.some((c) => c.id === id);
  }

  #changeCase(id: CoveringId, testCase: DesignCase | null): void {
    this.#changeUsed([id], () => this.#putCase(id, testCase));
  }

  #changeFeature(feature: FeatureId, scenarios: readonly DesignCase[]): void {
    const now = new Map(scenarios.map((s) => [s.id, s]));
    const before = [...this.cases.keys()].filter((id) => parseScenarioId(id)?.feature === feature);
    const keys = new Set<CoveringId>([...before, ...now.keys()]);
    this.#changeUsed([...keys], () => {
      for (const id of keys) this.#putCase(id, now.get(id) ?? null);
    });
  }

  #changeLibrary(entries: DesignLibrary, gone: readonly string[]): void {
    this.#changeUsed([...entries.map((e) => e.key), ...gone], () => {
      for (const { key, used } of entries) this.#putUsed(key, used);
      for (const key of gone) this.#putUsed(key, null);
    });
  }

  /** Changes cases or what cases use; what they and their users show is judged again. */
  #changeUsed(keys: readonly string[], change: () => void): void {
    const touched = new Map<ConditionEntry, Evidence | null>();
    const own = keys.flatMap((key) => (this.cases.has(key as CoveringId) ? [key as CoveringId] : []));
    const before = new Set([...own, ...this.#uses.casesUsing(keys)]);
    for (const id of before) this.#removeCase(id, touched);
    change();
    const now = keys.flatMap((key) => this.cases.get(key as CoveringId) ?? []);
    for (const testCase of new Set([...now, ...[...before, ...this.#uses.casesUsing(keys)].flatMap((id) => this.cases.get(id) ?? [])])) this.#addCase(testCase, touched);
    for (const entry of touched.keys()) this.#refresh(entry);
  }

  /** Whether anything uses what has this key. */
  isUsedAs(key: string): boolean {
    return this.#uses.isUsed(key);
  }

  #putCase(id: CoveringId, testCase: DesignCase | null): void {
    if (testCase === null) this.cases.delete(id);
    else this.cases.set(id, testCase);
    this.#uses.put(id, testCase === null ? [] : keysUsed(testCase.content));
  }

  #putUsed(key: string, used: Used | null): void {
    if (used === null) this.#library.delete(key);
    else this.#library.set(key, used);
    this.#uses.put(key, used === null ? [] : keysUsedIn(used));
  }

  #used(key: string): Used | undefined {
    const head = this.cases.get(key as CoveringId);
    // Scenarios are used by nobody.
    return head === undefined || !isCaseId(head.id) ? this.#library.get(key) : { kind: 'case', id: head.id, version: head.version, withdrawn: head.state === 'withdrawn', content: head.content };
  }

  /** Takes what a case shows out of the conditions; what it showed of them is kept beside, to be judged again in part. */
  #removeCase(id: CoveringId, touched: Map<ConditionEntry, Evidence | null>): void {
    const covered = this.#covered.get(id)?.keys() ?? (this.cases.get(id)?.content.covers ?? []).map((c) => c.id);
    for (const condition of covered) {
      const entry = this.entries.get(condition);
      if (entry === undefined) continue;
      touched.set(entry, entry.covering.find((c) => c.id === id)?.evidence ?? null);
      entry.covering = entry.covering.filter((c) => c.id !== id);
    }
    this.#covered.delete(id);
  }

  #addCase(testCase: DesignCase, touched: Map<ConditionEntry, Evidence | null> | null): void {
    const opened = this.#openedOf(testCase);
    if (opened !== null) this.#covered.set(testCase.id, conditionsCovered(opened));
    const covered = this.#covered.get(testCase.id)?.keys() ?? testCase.content.covers.map((c) => c.id);
    for (const condition of covered) {
      const entry = this.entries.get(condition);
      if (entry === undefined) continue;
      const earlier = touched?.get(entry) ?? null;
      this.#addEvidence(testCase, entry, earlier?.case === testCase.id ? earlier : null, opened);
      touched?.set(entry, null);
    }
  }

  /** How often a case is executed, its rows times those that calls run, and how many steps it then has. */
  countsOf({ id, content }: DesignCase): CaseCounts {
    return this.#uses.uses(id) ? openedCounts(content, this.#everything) : ownCounts(content);
  }

  /** The counts of all cases that are not withdrawn and come to more or less than their own rows and steps. */
  openedCounts(): Map<CoveringId, CaseCounts> {
    return new Map([...this.cases.values()].flatMap((c) => {
      if (c.state === 'withdrawn') return [];
      const counts = this.countsOf(c);
      return this.#uses.uses(c.id) || counts.instances !== Math.max(1, c.content.rows.length) ? [[c.id, counts] as const] : [];
    }));
  }

  /** Whether values of a case come from elsewhere than its own rows and defaults. */
  #isOpened({ content }: DesignCase, library = this.#everything): boolean {
    if (content.steps.some(isUse)) return true;
    if (this.#constants.size === 0) return false;
    const expectsConstant = content.steps.some((s) => s.kind === 'step' && s.expected.includes('<') && parametersIn(s.expected).some((name) => this.#constants.has(name)));
    return expectsConstant || content.parameters.some((p) => p.default.includes('<')) || allRows(content, library).some((r) => Object.values(r.cells).some((cell) => cell.includes('<')));
  }

  /** Null: the case uses nothing, or too much to be opened. */
  #openedOf(testCase: DesignCase, library = this.#everything): OpenedCase | null {
    if (!this.#isOpened(testCase, library)) return null;
    const opened = openCase(testCase.content, library, this.#constants);
    return opened.kind === 'opened' ? opened : null;
  }

  #changeQuestion(id: QuestionId, question: DesignQuestion | null): void {
    const subjects = new Set(this.questions.put(id, question));
    for (const entry of this.entries.values()) {
      if (subjects.has(entry.id) || entry.condition.content.requirements.some((r) => subjects.has(r.id))) this.#refresh(entry);
    }
  }

  #addEvidence(testCase: DesignCase, entry: ConditionEntry, earlier: Evidence | null, opened = this.#openedOf(testCase)): void {
    if (testCase.state === 'withdrawn') return;
    const { id, content } = testCase;
    const seenVersion = this.#covered.get(id)?.get(entry.id) ?? content.covers.find((c) => c.id === entry.id)?.seenVersion;
    if (seenVersion === undefined) return;
    const evidence = evidenceAt(testCase, entry, runsOf(content, this.#everything), opened, earlier);
    if (evidence === null) return;
    const covering = { id, seenVersion, evidence };
    const last = entry.covering.at(-1);
    entry.covering = [...entry.covering, covering];
    if (last !== undefined && compareCovering(last.id, id) > 0) entry.covering = entry.covering.toSorted((a, b) => compareCovering(a.id, b.id));
  }

  /**
   * What a case shows of the counted conditions when it says something else than it does here (an earlier version of it), and how often it is then
   * executed. `entries`: what it uses that the index does not hold.
   */
  evidenceOf(testCase: DesignCase, entries: DesignLibrary): { readonly counts: CaseCounts; readonly covering: ReadonlyMap<ConditionEntry, CoveringCase> } {
    const more = new Map(entries.map(({ key, used }) => [key, used]));
    const library: Library = { get: (key) => more.get(key) ?? this.#everything.get(key) };
    const opened = this.#openedOf(testCase, library);
    const rows = runsOf(testCase.content, library);
    const covered = opened === null ? new Map(testCase.content.covers.map((c) => [c.id, c.seenVersion])) : conditionsCovered(opened);
    const covering = new Map<ConditionEntry, CoveringCase>();
    for (const [condition, seenVersion] of covered) {
      const entry = this.entries.get(condition);
      if (entry === undefined || entry.counted === null) continue;
      const evidence = evidenceAt(testCase, entry, rows, opened, null);
      if (evidence !== null) covering.set(entry, { id: testCase.id, evidence, suspect: isSuspect({ seenVersion }, entry.condition) });
    }
    return { counts: openedCounts(testCase.content, library), covering };
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
    const suspect = content.requirements.some((link) => isSuspect(link, requirements.find((r) => r.id === link.id)));
    const covering = entry.covering.map((c) => ({ id: c.id, evidence: c.evidence, suspect: isSuspect(c, condition) }));
    const waiting = this.questions.itemsWaiting(id, content.requirements.map((r) => r.id));
    const grounds: Grounds = { id, content, judge, suspect, waiting, covering };
    const weights = this.#settings.riskWeights;
    const weight = content.risk === null ? Math.max(...requirements.map((r) => weights[r.risk])) : weights[content.risk];
    entry.counted = { grounds, tally: tallyOf(standingsOf(grounds), judge.techniques, weight) };
    this.totals.add(entry.counted.tally);
  }
}

/** What a case shows of a condition with these rows; null: it does not cover it. */
function evidenceAt({ id, content }: DesignCase, { id: condition, judge, condition: { content: told } }: ConditionEntry, rows: Evidence['rows'], opened: OpenedCase | null, earlier: Evidence | null): Evidence | null {
  const fields = carriedFields(told.model);
  if (opened !== null) return openedEvidence(id, rows, opened, { id: condition, content: told }, judge, fields);
  const cover = content.covers.find((c) => c.id === condition);
  return cover === undefined ? null : caseEvidence(id, content, rows, cover, judge, told, fields, earlier);
}

function sameForCoverage(a: DesignRequirement | undefined, b: DesignRequirement | undefined): boolean {
  return a === b || (a !== undefined && b !== undefined && a.risk === b.risk && a.meaningSince === b.meaningSince);
}

/** Whether the same items are made and shown: nothing but title, polarity and model decides that. */
function isJudgedAlike(a: ConditionContent, b: ConditionContent): boolean {
  return a.model === b.model && a.title === b.title && a.polarity === b.polarity;
}
