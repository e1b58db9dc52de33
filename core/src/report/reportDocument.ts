import type { ArtefactId, ArtefactKind } from '../artefacts/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import { TECHNIQUES, type Technique } from '../conditions/index.ts';
import { itemsToShow, linkedRatio, percentDown, shownRatio, type Ratio, type Standing, type StandingCounts } from '../coverage/index.ts';
import { missing, type DesignReport, type FiguresThen, type ReportSince, type Some, type WaitingFor, type WorstRequirement } from './designReport.ts';

/** How a report says what differs from reader to reader, and the words of closed sets. */
export interface ReportWords {
  readonly risk: Readonly<Record<Risk, string>>;
  readonly technique: Readonly<Record<Technique, string>>;
  readonly standing: Readonly<Record<Standing, string>>;
  readonly kind: Readonly<Record<ArtefactKind, readonly [one: string, many: string]>>;
  readonly number: (value: number) => string;
  readonly day: (iso: string) => string;
  readonly moment: (iso: string) => string;
  readonly duration: (minutes: number) => string;
}

/** A report as one reads it, whatever it is written as. */
export interface ReportDocument {
  readonly title: string;
  readonly of: string;
  /** What whoever made it says first; may be of several lines. */
  readonly note: string;
  readonly figures: readonly { readonly value: string; readonly words: string }[];
  readonly sections: readonly ReportSection[];
}

export interface ReportSection {
  readonly title: string;
  readonly lines: readonly string[];
  readonly tables: readonly ReportTable[];
  readonly curve: ReportCurve | null;
}

/** `most`: how many of its rows are read; the others stand in a workbook only. */
export interface ReportTable {
  readonly name: string;
  readonly columns: readonly string[];
  readonly rows: readonly (readonly ReportCell[])[];
  readonly most: number;
  /** Where not even a workbook has all: how many more there are. */
  readonly more: number;
}

export type ReportCell =
  | { readonly kind: 'text'; readonly text: string; readonly id: ArtefactId | null }
  | { readonly kind: 'number'; readonly text: string }
  /** A bar of how items stand. */
  | { readonly kind: 'bar'; readonly counts: StandingCounts };

/** The share that is shown, by moments. */
export interface ReportCurve {
  readonly words: string;
  readonly points: readonly { readonly at: string; readonly share: number | null }[];
  /** The baseline it is held against. */
  readonly mark: { readonly at: string; readonly name: string } | null;
}

/** Rows of tables that one reads; more of them would not be one to three pages. */
const [MOST_PARTS, MOST_SUITES, MOST_WAITING] = [10, 6, 10];

/** A report in words. `note`: what is said first. */
export function reportDocument(report: DesignReport, note: string, words: ReportWords): ReportDocument {
  const { project, at, since } = report;
  return {
    title: `Design coverage of ${project}`,
    of: `As of ${words.moment(at)}${since === null ? '' : `, held against B-${since.number} ${since.name} of ${words.day(since.at)}`}`,
    note: note.trim(),
    figures: headFigures(report, words),
    sections: [standing(report, words), worst(report, words), waits(report, words), overTime(report, words), ...(since === null ? [] : [changed(report, since, words)]), counting()],
  };
}

function headFigures({ figures }: DesignReport, { number, duration }: ReportWords): ReportDocument['figures'] {
  const { counts, weighted, unanalysed, requirements, instances, minutes, scenarios } = figures;
  return [
    { value: percent(shownRatio(counts)), words: 'shown by rows and expected results' },
    { value: percent(shownRatio(weighted)), words: 'shown, weighed by risk' },
    { value: percent(linkedRatio(counts)), words: 'shown or linked' },
    { value: `${number(unanalysed)} of ${number(requirements)}`, words: 'requirements not analysed yet' },
    { value: number(itemsToShow(counts)), words: `coverage items in ${countOf(instances + scenarios.instances, ['instance', 'instances'], number)}, ${duration(minutes + scenarios.minutes)}` },
  ];
}

function standing({ figures, unreadable }: DesignReport, words: ReportWords): ReportSection {
  const { number } = words;
  const { counts, unanalysed, byRisk, byModule, byTechnique, suites } = figures;
  const items = itemsToShow(counts);
  return {
    title: 'Where it stands',
    lines: [
      items === 0 ? 'There is nothing to show yet: no condition says what has to be shown.' : `Shown are ${number(counts.shown)} of ${countOf(items, ITEMS, number)}. The others: ${number(counts.linked)} linked only, ${countOf(counts.gap, ['gap', 'gaps'], number)}, ${number(counts.waiting)} waiting for an answer, ${number(counts.suspect)} suspect because what they rest on changed.`,
      ...(unanalysed === 0 ? [] : [`Nothing is counted of ${countOf(unanalysed, words.kind.requirement, number)} that nobody has analysed yet.`]),
      ...(unreadable === 0 ? [] : [`Nothing is counted of ${countOf(unreadable, ['artefact', 'artefacts'], number)} that cannot be read.`]),
    ],
    tables: [
      partsTable('Risk', RISKS.map((risk) => ({ name: words.risk[risk], id: null, counts: byRisk[risk] })), words),
      partsTable('Module', byModule.map(({ module, counts: own }) => ({ name: module === '' ? 'No module' : module, id: null, counts: own })), words),
      partsTable('Technique', TECHNIQUES.map((technique) => ({ name: words.technique[technique], id: null, counts: byTechnique[technique] })), words),
      partsTable('Suite', suites.map(({ id, title, counts: own }) => ({ name: `${id} ${title}`, id, counts: own })), words, MOST_SUITES),
    ].filter(({ rows }) => rows.length > 0),
    curve: null,
  };
}

interface Part {
  readonly name: string;
  readonly id: ArtefactId | null;
  readonly counts: StandingCounts;
}

/** Parts of which nothing is to be shown have no row. */
function partsTable(name: string, parts: readonly Part[], { number }: ReportWords, most = MOST_PARTS): ReportTable {
  const rows = parts.filter(({ counts }) => itemsToShow(counts) > 0).map((part): ReportCell[] => [
    { kind: 'text', text: part.name, id: part.id },
    { kind: 'bar', counts: part.counts },
    { kind: 'number', text: percent(shownRatio(part.counts)) },
    { kind: 'number', text: number(itemsToShow(part.counts)) },
    { kind: 'number', text: number(part.counts.linked + part.counts.gap) },
    { kind: 'number', text: number(part.counts.waiting + part.counts.suspect) },
  ]);
  return { name, columns: [name, 'how they stand', 'shown', 'items', 'not shown', 'waiting or suspect'], rows, most, more: 0 };
}

function worst({ figures, worst: { first, more } }: DesignReport, words: ReportWords): ReportSection {
  const rows = first.map((requirement): ReportCell[] => [
    { kind: 'text', text: `${requirement.id} ${requirement.title}`, id: requirement.id },
    { kind: 'text', text: requirement.module, id: null },
    { kind: 'text', text: words.risk[requirement.risk], id: null },
    { kind: 'text', text: missingWords(requirement, words), id: null },
  ]);
  return {
    title: 'The worst gaps',
    lines: [rows.length === 0 ? (itemsToShow(figures.counts) === 0 ? 'Nothing is missing of what was analysed: there is nothing to show yet.' : 'Every item of every requirement is shown.') : 'The highest risk first; of one risk what nobody has analysed, then what misses most.'],
    tables: rows.length === 0 ? [] : [{ name: 'Gaps', columns: ['requirement', 'module', 'risk', 'what is missing'], rows, most: rows.length, more }],
    curve: null,
  };
}

function missingWords({ counts, isAnalysed }: WorstRequirement, { number }: ReportWords): string {
  if (!isAnalysed) return 'not analysed yet';
  const parts = ([[counts.gap, counts.gap === 1 ? 'gap' : 'gaps'], [counts.linked, 'linked only'], [counts.waiting, 'waiting'], [counts.suspect, 'suspect']] as const).filter(([count]) => count > 0);
  return `${number(missing(counts))} of ${number(itemsToShow(counts))}: ${parts.map(([count, what]) => `${number(count)} ${what}`).join(', ')}`;
}

function waits({ waiting }: DesignReport, words: ReportWords): ReportSection {
  const rows = waiting.flatMap((who) => waitingRows(who, words));
  return {
    title: 'What waits, and for whom',
    lines: rows.length === 0 ? ['No question is open, and nobody is asked to agree to anything.'] : [],
    tables: rows.length === 0 ? [] : [{ name: 'Waiting', columns: ['for', 'what', 'holds up'], rows, most: MOST_WAITING, more: 0 }],
    curve: null,
  };
}

function waitingRows({ who, questions, reviews }: WaitingFor, { number, day }: ReportWords): ReportCell[][] {
  const name = who === '' ? 'nobody asked yet' : who;
  return [
    ...questions.map((q): ReportCell[] => [
      { kind: 'text', text: name, id: null },
      { kind: 'text', text: `${q.id} ${q.title}`, id: q.id },
      { kind: 'text', text: q.holdsUp === 0 ? 'nothing' : countOf(q.holdsUp, ITEMS, number), id: null },
    ]),
    ...reviews.map((r): ReportCell[] => [
      { kind: 'text', text: name, id: null },
      { kind: 'text', text: `Review ${r.number} ${r.title}: to be agreed to${r.due === null ? '' : ` until ${day(r.due)}`}`, id: null },
      { kind: 'text', text: countOf(r.artefacts, ['artefact', 'artefacts'], number), id: null },
    ]),
  ];
}

function overTime({ at, figures, trend: { points, left }, since }: DesignReport, { number, day }: ReportWords): ReportSection {
  const all = [...points, { at, counts: figures.counts }];
  const [first] = points;
  const of = (counts: StandingCounts): string => (itemsToShow(counts) === 0 ? 'there was nothing to show' : `${percent(shownRatio(counts))} of ${countOf(itemsToShow(counts), ITEMS, number)}`);
  const line = first === undefined ? 'There is no day before this one to compare with.' : `On ${day(first.at)}: ${of(first.counts)}. Now: ${of(figures.counts)}.`;
  return {
    title: 'Over time',
    lines: [...(first === undefined && left > 0 ? [] : [line]), ...(left === 0 ? [] : [`${countOf(left, ['day', 'days'], number)} of the past ${left === 1 ? 'is' : 'are'} not counted yet.`])],
    tables: [],
    curve: first === undefined ? null : { words: `The share that is shown. ${line}`, points: all.map((p) => ({ at: p.at, share: share(p.counts) })), mark: since === null ? null : { at: since.at, name: `B-${since.number}` } },
  };
}

function share(counts: StandingCounts): number | null {
  const { part, of } = shownRatio(counts);
  return of === 0 ? null : (100 * part) / of;
}

function changed({ figures }: DesignReport, since: ReportSince, words: ReportWords): ReportSection {
  const { number } = words;
  const kinds = since.kinds.map(({ kind, added, meant, gone }): ReportCell[] => [{ kind: 'text', text: words.kind[kind][1], id: null }, ...[added, meant, gone].map((n): ReportCell => ({ kind: 'number', text: number(n) }))]);
  return {
    title: `What changed since B-${since.number} ${since.name}`,
    lines: [
      ...(since.part === '' ? [] : [`It is of ${since.part}; only that is compared.`]),
      ...(since.figures === null ? ['No coverage was counted for it.'] : []),
      ...(kinds.length === 0 ? ['Nothing was added, nothing went, and nothing means something else.'] : []),
    ],
    tables: [
      ...(since.figures === null ? [] : [figuresTable(since.figures, figures, since, words)]),
      ...(kinds.length === 0 ? [] : [{ name: 'Changes', columns: ['', 'added', 'changed in meaning', 'gone'], rows: kinds, most: kinds.length, more: 0 }]),
      ...changedRequirements(since.requirements),
    ],
    curve: null,
  };
}

function figuresTable(then: FiguresThen, now: FiguresThen, { number: baseline }: ReportSince, { number, duration }: ReportWords): ReportTable {
  const lines: readonly (readonly [string, (f: FiguresThen) => string])[] = [
    ['shown', (f) => percent(shownRatio(f.counts))],
    ['items', (f) => number(itemsToShow(f.counts))],
    ['items shown', (f) => number(f.counts.shown)],
    ['not shown', (f) => number(f.counts.linked + f.counts.gap)],
    ['waiting or suspect', (f) => number(f.counts.waiting + f.counts.suspect)],
    ['requirements not analysed', (f) => number(f.unanalysed)],
    ['cases', (f) => number(f.cases)],
    ['instances of cases', (f) => number(f.instances)],
    ['time to execute them', (f) => duration(f.minutes)],
  ];
  const rows = lines.map(([name, value]): ReportCell[] => [{ kind: 'text', text: name, id: null }, { kind: 'number', text: value(then) }, { kind: 'number', text: value(now) }]);
  return { name: 'Figures', columns: ['', `B-${baseline}`, 'now'], rows, most: rows.length, more: 0 };
}

const BECAME = { added: 'added', changed: 'changed in meaning', gone: 'gone' } as const;

function changedRequirements({ first, more }: Some<ReportSince['requirements']['first'][number]>): ReportTable[] {
  const rows = first.map(({ id, title, became }): ReportCell[] => [{ kind: 'text', text: `${id} ${title}`, id: became === 'gone' ? null : id }, { kind: 'text', text: BECAME[became], id: null }]);
  return rows.length === 0 ? [] : [{ name: 'Changed requirements', columns: ['requirement', 'since then'], rows, most: rows.length, more }];
}

function counting(): ReportSection {
  return {
    title: 'How it is counted',
    lines: [
      'This is about the design of tests, before anything is executed. An item is something that has to be shown, such as a class of values or a rule. It is shown when a row reaches it and an expected result would tell whether it is right; it is linked where a case only says that it covers it, and a gap where nothing does. Percentages are rounded down, so that 100 % means all of it.',
    ],
    tables: [],
    curve: null,
  };
}

const ITEMS = ['coverage item', 'coverage items'] as const;

function percent(ratio: Ratio): string {
  const value = percentDown(ratio);
  return value === null ? '–' : `${value} %`;
}

function countOf(count: number, [one, many]: readonly [string, string], number: (value: number) => string): string {
  return `${number(count)} ${count === 1 ? one : many}`;
}
