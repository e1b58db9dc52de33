import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { gfm } from 'micromark-extension-gfm';
import { baselineNumber, type Frozen, type FrozenChange } from '../baselines/index.ts';
import { RISKS, type Risk } from '../basis/index.ts';
import { NO_ITEMS, STANDINGS, itemsToShow, perTechnique, type RequirementCoverage, type StandingCounts } from '../coverage/index.ts';
import { reviewNumber } from '../reviews/index.ts';
import { curveLine } from './curveLine.ts';
import { changedSince, missing, waitingFor, worstRequirements, type DesignReport } from './designReport.ts';
import { reportDocument, type ReportDocument, type ReportWords } from './reportDocument.ts';
import { reportMarkdown } from './reportMarkdown.ts';
import { reportPage } from './reportPage.ts';
import { reportSheets } from './reportSheets.ts';

const WORDS: ReportWords = {
  risk: { high: 'High risk', medium: 'Medium risk', low: 'Low risk' },
  technique: { partitions: 'Partitions', boundaries: 'Boundaries', decisionTable: 'Tables', stateTransitions: 'States', combination: 'Combinations', plain: 'Plain' },
  kind: { requirement: ['requirement', 'requirements'], condition: ['condition', 'conditions'], case: ['case', 'cases'], question: ['question', 'questions'], shared: ['shared steps', 'shared steps'], dataSet: ['data set', 'data sets'], feature: ['feature', 'features'], suite: ['suite', 'suites'] },
  standing: { shown: 'shown', linked: 'linked only', gap: 'gap', waiting: 'waiting', suspect: 'suspect', leftOut: 'left out' },
  number: String,
  day: (iso) => iso.slice(0, 10),
  moment: (iso) => iso.slice(0, 16),
  duration: (minutes) => `${minutes} min`,
};
const counts = (more: Partial<StandingCounts>): StandingCounts => ({ ...NO_ITEMS, ...more });
const row = (n: number, risk: Risk, own: StandingCounts): RequirementCoverage => ({ id: `R-${n}`, title: `Requirement ${n}`, module: 'Readings', risk, counts: own, conditions: [] });

const WHOLE = counts({ shown: 199, linked: 1, gap: 3, waiting: 2, leftOut: 5 });
const REPORT: DesignReport = {
  project: 'Fonte <Clara>',
  at: '2026-03-05T10:00:00.000Z',
  figures: {
    counts: WHOLE, weighted: WHOLE, byRisk: { high: WHOLE, medium: NO_ITEMS, low: NO_ITEMS }, byTechnique: perTechnique(() => NO_ITEMS), byModule: [{ module: 'Readings | meters', counts: WHOLE }, { module: '', counts: NO_ITEMS }],
    suites: [{ id: 'U-1', title: 'Smoke', counts: counts({ shown: 1, gap: 1 }) }], requirements: 8, unanalysed: 1, cases: 4, instances: 9, minutes: 30, scenarios: { scenarios: 2, byHand: 1, instances: 3, minutes: 6 },
  },
  worst: worstRequirements({ requirements: [row(1, 'low', counts({ gap: 3 })), row(2, 'high', counts({ linked: 1, waiting: 2, shown: 4 })), row(3, 'high', NO_ITEMS)], unanalysed: ['R-3'] }),
  waiting: waitingFor([{ id: 'Q-1', title: 'Until *when*?', asked: '', holdsUp: 0 }, { id: 'Q-2', title: 'How much?', asked: 'Teresa L.', holdsUp: 2 }], [{ number: reviewNumber(2), title: 'Before the pilot', due: '2026-03-09', artefacts: 6, asked: 'Rui M.' }]),
  trend: { points: [{ at: '2026-03-01T10:00:00.000Z', counts: NO_ITEMS }, { at: '2026-03-03T10:00:00.000Z', counts: counts({ shown: 1, gap: 1 }) }], left: 1 },
  since: {
    number: baselineNumber(2), name: 'Pilot', at: '2026-03-03T10:00:00.000Z', part: '', figures: { counts: counts({ shown: 1, gap: 1 }), unanalysed: 2, cases: 1, instances: 1, minutes: 3 },
    kinds: [{ kind: 'case', added: 3, meant: 1, gone: 0 }], requirements: { first: [{ id: 'R-9', title: 'Old', became: 'gone' }], more: 4 },
  },
  unreadable: 1,
};
const DOCUMENT = reportDocument(REPORT, '  First <b>this</b>.\n\nThen | that. ', WORDS);
const section = (document: ReportDocument, title: string) => document.sections.find((s) => s.title.startsWith(title));
const cells = (document: ReportDocument, title: string, table: string) => section(document, title)?.tables.find((t) => t.name === table)?.rows.map((r) => r.map((c) => (c.kind === 'bar' ? itemsToShow(c.counts) : c.text)));

test('what is read: the head, the parts that have items, the worst first, who is waited for, what changed', () => {
  expect(DOCUMENT.title).toBe('Design coverage of Fonte <Clara>');
  expect(DOCUMENT.of).toBe('As of 2026-03-05T10:00, held against B-2 Pilot of 2026-03-03');
  expect(DOCUMENT.note).toBe('First <b>this</b>.\n\nThen | that.');
  // 199 of 205 is 97.07 %: what is left out is no item, and nothing is rounded up.
  expect(DOCUMENT.figures.map((f) => f.value)).toEqual(['97 %', '97 %', '97 %', '1 of 8', '205']);
  expect(DOCUMENT.figures.at(-1)?.words).toBe('coverage items in 12 instances, 36 min');
  expect(section(DOCUMENT, 'Where')?.lines).toEqual([
    'Shown are 199 of 205 coverage items. The others: 1 linked only, 3 gaps, 2 waiting for an answer, 0 suspect because what they rest on changed.',
    'Nothing is counted of 1 requirement that nobody has analysed yet.',
    'Nothing is counted of 1 artefact that cannot be read.',
  ]);
  expect(section(DOCUMENT, 'Where')?.tables.map((t) => [t.name, t.rows.length])).toEqual([['Risk', 1], ['Module', 1], ['Suite', 1]]);
  expect(cells(DOCUMENT, 'Where', 'Suite')).toEqual([['U-1 Smoke', 2, '50 %', '2', '1', '0']]);
  expect(cells(DOCUMENT, 'The worst', 'Gaps')?.map((r) => [r[0], r[3]])).toEqual([['R-3 Requirement 3', 'not analysed yet'], ['R-2 Requirement 2', '3 of 7: 1 linked only, 2 waiting'], ['R-1 Requirement 1', '3 of 3: 3 gaps']]);
  expect(cells(DOCUMENT, 'What waits', 'Waiting')).toEqual([['Teresa L.', 'Q-2 How much?', '2 coverage items'], ['Rui M.', 'Review 2 Before the pilot: to be agreed to until 2026-03-09', '6 artefacts'], ['nobody asked yet', 'Q-1 Until *when*?', 'nothing']]);
  expect(section(DOCUMENT, 'Over time')?.lines).toEqual(['On 2026-03-01: there was nothing to show. Now: 97 % of 205 coverage items.', '1 day of the past is not counted yet.']);
  expect(cells(DOCUMENT, 'What changed', 'Figures')?.slice(0, 2)).toEqual([['shown', '50 %', '97 %'], ['items', '2', '205']]);
  expect(cells(DOCUMENT, 'What changed', 'Changed requirements')).toEqual([['R-9 Old', 'gone']]);
});

test('a project in which there is nothing says so, and claims nothing', () => {
  const none = { ...REPORT.figures, counts: NO_ITEMS, weighted: NO_ITEMS, byRisk: { high: NO_ITEMS, medium: NO_ITEMS, low: NO_ITEMS }, byModule: [], suites: [], requirements: 0, unanalysed: 0, instances: 0, minutes: 0 };
  const empty = reportDocument({ ...REPORT, figures: none, worst: { first: [], more: 0 }, waiting: [], trend: { points: [], left: 0 }, since: null, unreadable: 0 }, '', WORDS);
  expect(empty.figures[0]?.value).toBe('–');
  expect(empty.sections.flatMap((s) => s.tables)).toEqual([]);
  expect(empty.sections.map((s) => [s.title, s.lines[0]]).slice(0, 4)).toEqual([
    ['Where it stands', 'There is nothing to show yet: no condition says what has to be shown.'],
    ['The worst gaps', 'Nothing is missing of what was analysed: there is nothing to show yet.'],
    ['What waits, and for whom', 'No question is open, and nobody is asked to agree to anything.'],
    ['Over time', 'There is no day before this one to compare with.'],
  ]);
  expect(reportPage(empty, WORDS)).not.toContain('<svg');
  expect(section(reportDocument({ ...REPORT, trend: { points: [], left: 3 } }, '', WORDS), 'Over time')?.lines).toEqual(['3 days of the past are not counted yet.']);
});

test('as Markdown and as a page all that people wrote is text; a workbook holds every row, and a bar as its numbers', () => {
  const markdown = reportMarkdown(DOCUMENT);
  const tree = fromMarkdown(markdown, { extensions: [gfm()], mdastExtensions: [gfmFromMarkdown()] });
  expect(tree.children.filter((node) => node.type === 'table')).toHaveLength(8);
  expect(JSON.stringify(tree)).not.toContain('"type":"html"');
  expect(JSON.stringify(tree)).not.toContain('"type":"emphasis"');
  expect(JSON.stringify(tree)).toContain('"value":"Readings | meters"');
  expect(markdown).toContain('and 4 more');
  const page = reportPage(DOCUMENT, WORDS);
  expect(page).toContain('First &#x3C;b>this&#x3C;/b>.');
  expect(page).toContain('<title>Design coverage of Fonte &#x3C;Clara></title>');
  expect(page).toContain('<i class="linked"></i> linked only');
  expect(page).not.toMatch(/<script|https?:/);
  expect(page).toContain(`width:${((199 / 205) * 100).toFixed(2)}%`);
  const sheets = reportSheets(DOCUMENT);
  expect(sheets.find((s) => s.name === 'Module')?.rows).toEqual([['Module', 'left out', 'waiting', 'suspect', 'shown items', 'linked only', 'gaps', 'shown', 'items', 'not shown', 'waiting or suspect'], ['Readings | meters', '5', '2', '0', '199', '1', '3', '97 %', '205', '4', '2']]);
  expect(sheets.find((s) => s.name === 'Over time')?.rows.map((r) => r[1])).toEqual(['share shown', '', '50 %', '97 %']);
  const many = reportDocument({ ...REPORT, figures: { ...REPORT.figures, byModule: Array.from({ length: 40 }, (_, i) => ({ module: `M${i}`, counts: WHOLE })) } }, '', WORDS);
  expect(reportSheets(many).find((s) => s.name === 'Module')?.rows).toHaveLength(41);
  expect(reportMarkdown(many).match(/^\| M\d+ /gm)).toHaveLength(10);
  expect(reportMarkdown(many)).toContain('and 30 more');
});

test('what only moved or stands in another state is no change that a report tells', () => {
  const frozen = (id: Frozen['id'], version: number): Frozen => ({ id, version, meaningSince: version, state: 'draft', title: id, module: '' });
  const changes: FrozenChange[] = [
    { kind: 'added', to: frozen('R-1', 1) },
    { kind: 'changed', from: frozen('R-2', 1), to: frozen('R-2', 2), meant: true },
    { kind: 'changed', from: frozen('R-3', 1), to: frozen('R-3', 2), meant: false },
    { kind: 'state', from: frozen('C-1', 1), to: frozen('C-1', 1) },
    { kind: 'gone', from: frozen('C-2', 1) },
    ...Array.from({ length: 13 }, (_, i): FrozenChange => ({ kind: 'added', to: frozen(`R-${i + 10}`, 1) })),
  ];
  const { kinds, requirements } = changedSince(changes);
  expect(kinds).toEqual([{ kind: 'requirement', added: 14, meant: 1, gone: 0 }, { kind: 'case', added: 0, meant: 0, gone: 1 }]);
  expect(requirements.first.slice(0, 2)).toEqual([{ id: 'R-1', title: 'R-1', became: 'added' }, { id: 'R-2', title: 'R-2', became: 'changed' }]);
  expect([requirements.first.length, requirements.more]).toEqual([8, 7]);
});

test('the worst requirements are those of the plain question: nothing before them is of less risk, or misses less', () => {
  const standing = fc.record(Object.fromEntries(STANDINGS.map((s) => [s, fc.nat(3)])) as Record<keyof StandingCounts, fc.Arbitrary<number>>);
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom(...RISKS), standing, fc.boolean()), { maxLength: 30 }), (drawn) => {
      const requirements = drawn.map(([risk, own, isAnalysed], i) => row(i + 1, risk, isAnalysed ? own : NO_ITEMS));
      const unanalysed = requirements.flatMap((r, i) => (drawn[i]?.[2] === true ? [] : [r.id]));
      const { first, more } = worstRequirements({ requirements, unanalysed });
      const misses = (r: RequirementCoverage): number => (unanalysed.includes(r.id) ? Infinity : missing(r.counts));
      const wanted = requirements.filter((r) => misses(r) > 0);
      expect(first.length + more).toBe(wanted.length);
      const worse = (a: RequirementCoverage, b: RequirementCoverage): boolean => RISKS.indexOf(a.risk) < RISKS.indexOf(b.risk) || (a.risk === b.risk && misses(a) > misses(b));
      for (const [i, told] of first.entries()) {
        const before = wanted.filter((r) => worse(r, requirements.find((q) => q.id === told.id)!)).length;
        expect(before).toBeLessThanOrEqual(i);
      }
    }),
  );
});

test('a curve goes from the first moment to the last, breaks where nothing was to be shown, and marks only what lies within', () => {
  const points = [{ at: '2026-03-01T00:00:00Z', share: 0 }, { at: '2026-03-03T00:00:00Z', share: null }, { at: '2026-03-04T00:00:00Z', share: 50 }, { at: '2026-03-05T00:00:00Z', share: 100 }];
  const draw = (at: string | null) => curveLine({ words: '', points, mark: at === null ? null : { at, name: 'B-1' } }, 400, 100);
  expect(draw('2026-03-02T00:00:00Z')).toMatchObject({ runs: ['0,100', '300,50 400,0'], mark: { x: 100, name: 'B-1' } });
  expect([draw('2026-02-01T00:00:00Z').mark, draw(null).mark]).toEqual([null, null]);
  expect(curveLine({ words: '', points: points.slice(0, 1), mark: null }, 400, 100).runs).toEqual(['400,100']);
});
