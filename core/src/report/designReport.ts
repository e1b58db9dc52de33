import { ARTEFACT_KINDS, kindOfId, type ArtefactId, type ArtefactKind, type QuestionId, type RequirementId } from '../artefacts/index.ts';
import { changedItem, type BaselineNumber, type FrozenChange } from '../baselines/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import { itemsToShow, type CoverageReport, type RequirementCoverage, type StandingCounts } from '../coverage/index.ts';
import type { TrendFigures } from '../trend/index.ts';
import type { ReviewNumber } from '../reviews/index.ts';

/** What those who decide are told of a project: how much of what is to be shown is shown, what is worst, what waits for whom, and what changed. */
export interface DesignReport {
  /** What the project is called. */
  readonly project: string;
  readonly at: string;
  readonly figures: TrendFigures;
  readonly worst: Some<WorstRequirement>;
  readonly waiting: readonly WaitingFor[];
  /** The end of each day that is counted, and how many are not counted yet. */
  readonly trend: { readonly points: readonly TrendMoment[]; readonly left: number };
  readonly since: ReportSince | null;
  /** Artefacts that cannot be read: nothing of them is counted. */
  readonly unreadable: number;
}

/** The first of many, and how many more there are. */
export interface Some<T> {
  readonly first: readonly T[];
  readonly more: number;
}

export interface TrendMoment {
  readonly at: string;
  readonly counts: StandingCounts;
}

/** A requirement of which something is not shown; without any condition it is not analysed yet. */
export interface WorstRequirement {
  readonly id: RequirementId;
  readonly title: string;
  readonly module: string;
  readonly risk: Risk;
  readonly counts: StandingCounts;
  readonly isAnalysed: boolean;
}

/** Requirements that a report names. */
const MOST_WORST = 10;

/** Of which requirements something is not shown: the highest risk first, of one risk those that nobody analysed, then those that miss most items. */
export function worstRequirements({ requirements, unanalysed }: Pick<CoverageReport, 'requirements' | 'unanalysed'>): Some<WorstRequirement> {
  const not = new Set(unanalysed);
  const worst = requirements.flatMap((row): WorstRequirement[] => {
    const isAnalysed = !not.has(row.id);
    if (isAnalysed && missing(row.counts) === 0) return [];
    return [{ id: row.id, title: row.title, module: row.module, risk: row.risk, counts: row.counts, isAnalysed }];
  });
  worst.sort((a, b) => rank(a) - rank(b) || Number(a.isAnalysed) - Number(b.isAnalysed) || missing(b.counts) - missing(a.counts));
  return some(worst, MOST_WORST);
}

const rank = ({ risk }: Pick<RequirementCoverage, 'risk'>): number => RISKS.indexOf(risk);

/** Items that are to be shown and are not. */
export function missing(counts: StandingCounts): number {
  return itemsToShow(counts) - counts.shown;
}

function some<T>(all: readonly T[], most: number): Some<T> {
  return { first: all.slice(0, most), more: Math.max(0, all.length - most) };
}

/** A question that nobody answered yet, with the coverage items that wait for it. */
export interface WaitingQuestion {
  readonly id: QuestionId;
  readonly title: string;
  readonly holdsUp: number;
}

/** A review in which somebody's answer to some artefacts is outstanding. */
export interface WaitingReview {
  readonly number: ReviewNumber;
  readonly title: string;
  /** The last day; null: none was said. */
  readonly due: string | null;
  readonly artefacts: number;
}

/** What waits for somebody; nobody (empty) was asked yet. */
export interface WaitingFor {
  readonly who: string;
  readonly questions: readonly WaitingQuestion[];
  readonly reviews: readonly WaitingReview[];
}

/** What waits, by whom it waits for: whoever holds up most items first, then most artefacts that are to be agreed to, then by name. */
export function waitingFor(questions: readonly (WaitingQuestion & { readonly asked: string })[], reviews: readonly (WaitingReview & { readonly asked: string })[]): WaitingFor[] {
  const people = [...new Set([...questions, ...reviews].map((w) => w.asked))];
  const all = people.map((who): WaitingFor => ({
    who,
    questions: questions.flatMap(({ asked, ...question }) => (asked === who ? [question] : [])).sort((a, b) => b.holdsUp - a.holdsUp),
    reviews: reviews.flatMap(({ asked, ...review }) => (asked === who ? [review] : [])),
  }));
  return all.sort((a, b) => held(b) - held(a) || artefacts(b) - artefacts(a) || a.who.localeCompare(b.who));
}

const held = ({ questions }: WaitingFor): number => questions.reduce((sum, q) => sum + q.holdsUp, 0);
const artefacts = ({ reviews }: WaitingFor): number => reviews.reduce((sum, r) => sum + r.artefacts, 0);

/** Figures of a moment that another is held against. */
export interface FiguresThen {
  readonly counts: StandingCounts;
  readonly unanalysed: number;
  readonly cases: number;
  readonly instances: number;
  readonly minutes: number;
}

/** What changed since a baseline. */
export interface ReportSince {
  readonly number: BaselineNumber;
  readonly name: string;
  readonly at: string;
  /** What it is of in words; empty: everything. */
  readonly part: string;
  /** Null: its coverage could not be told, as it is of a part. */
  readonly figures: FiguresThen | null;
  readonly kinds: readonly ChangedKind[];
  /** Those that were added, went, or mean something else. */
  readonly requirements: Some<ChangedRequirement>;
}

/** How many artefacts of a kind changed; `meant`: mean something else. */
export interface ChangedKind {
  readonly kind: ArtefactKind;
  readonly added: number;
  readonly meant: number;
  readonly gone: number;
}

export interface ChangedRequirement {
  readonly id: ArtefactId;
  readonly title: string;
  readonly became: 'added' | 'changed' | 'gone';
}

/** Changed requirements that a report names. */
const MOST_CHANGED = 8;

/** Changes as a report tells them: what only moved, was tagged or stands in another state is not among them. */
export function changedSince(changes: readonly FrozenChange[]): Pick<ReportSince, 'kinds' | 'requirements'> {
  const told = changes.filter((change) => change.kind !== 'state' && (change.kind !== 'changed' || change.meant));
  const of = (kind: ArtefactKind): readonly FrozenChange[] => told.filter((change) => kindOfId(changedItem(change).id) === kind);
  const counted = ARTEFACT_KINDS.map((kind): ChangedKind => {
    const count = (what: FrozenChange['kind']): number => of(kind).filter((change) => change.kind === what).length;
    return { kind, added: count('added'), meant: count('changed'), gone: count('gone') };
  });
  const requirements = of('requirement').flatMap((change): ChangedRequirement[] => {
    const { id, title } = changedItem(change);
    return change.kind === 'state' ? [] : [{ id, title, became: change.kind }];
  });
  return { kinds: counted.filter(({ added, meant, gone }) => added + meant + gone > 0), requirements: some(requirements, MOST_CHANGED) };
}
