import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bindRow, bindText, newRow, parameterId, plainStep, rowId, stepId, type CaseContent, type Step } from '../cases/index.ts';
import { EMPTY_SHARED } from '../shared/index.ts';
import { CoverageIndex, whyUntold, type Design, type DesignCase } from './index.ts';
import { K, byReading, condition, designOf, ranges, requirement, testCase } from './testDesign/index.ts';

const outcome = { id: parameterId('o'), name: 'outcome', type: 'text' as const, default: '', description: '' };
const withSteps = (c: DesignCase, steps: readonly Step[], part: Partial<CaseContent> = {}): DesignCase => ({ ...c, content: { ...c.content, steps, parameters: [...c.content.parameters, outcome], ...part } });
const designWith = (model: 'plain' | 'ranges', testCase: DesignCase, more: Partial<Design> = {}): Design =>
  designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], model === 'plain' ? {} : { model: ranges })], cases: [testCase], ...more });
const shownOf = (design: Design): number => new CoverageIndex(design).coverageOf(K(1))?.items.filter((i) => i.standing === 'shown').length ?? 0;
const why = ({ content }: DesignCase, plain: boolean): string | null => whyUntold(content, content.covers[0]!, condition(1, [1], plain ? {} : { model: ranges }).content, content.rows[0] ?? null);

describe('a plain condition', () => {
  const named = [{ expects: [stepId('s')] }];
  test.each([
    ['shown: a step that says what to do and what is expected', 'Open it', 'It opens', null],
    ['linked: an empty action', ' ', 'It opens', 'noAction'],
    ['linked: the title of the condition repeated', 'Open it', 'Condition 1.', 'repeatsTitle'],
    ['linked: the title of the case repeated', 'Open it', 'case 1', 'repeatsTitle'],
    ['linked: nothing expected', 'Open it', ' ', 'noExpectation'],
    ['linked: only an outcome without value', 'Open it', '<outcome>', 'emptyInRow'],
  ])('%s', (_, action, expected, reason) => {
    const written = withSteps(testCase(1, ['0'], named), [plainStep(stepId('s'), action, expected)]);
    expect([shownOf(designWith('plain', written)), why(written, true)]).toEqual([reason === null ? 1 : 0, reason]);
  });
});

describe('values', () => {
  const rows = (...outcomes: string[]) => outcomes.map((text, i) => newRow(rowId(`r${i}`), `row ${i}`, { p: ['-1', '0', '100000'][i] ?? '1', ...(text === '' ? {} : { o: text }) }));
  const given = (expected: string, cover: object, ...outcomes: string[]) => withSteps(testCase(1, [], [{ ...byReading, ...cover }]), [plainStep(stepId('s'), 'Give <reading>', expected)], { rows: rows(...outcomes) });

  test('a row whose outcome is empty shows nothing; the others do', () => {
    expect(shownOf(designWith('ranges', given('<outcome>', { outcome: outcome.id }, 'refused', '')))).toBe(2);
    expect(shownOf(designWith('ranges', given('It is <outcome>', { outcome: outcome.id, expects: [stepId('s')] }, '', '')))).toBe(0);
  });
  test('where the link names nothing, any expected result tells; a named step that expects nothing does not', () => {
    expect(shownOf(designWith('ranges', given('It is taken', {}, '', '')))).toBe(4);
    const silent = withSteps(testCase(1, ['0', '-1'], [{ ...byReading, expects: [stepId('t')] }]), [plainStep(stepId('s'), 'Give <reading>', 'It is taken'), plainStep(stepId('t'), 'Look', '')]);
    expect([shownOf(designWith('ranges', silent)), why(silent, false)]).toEqual([0, 'noExpectation']);
  });
  test('a constant in an expected result is a value, as long as there is one', () => {
    const written = given('<fee>', {}, '', '');
    expect(shownOf(designWith('ranges', written))).toBe(0);
    const index = new CoverageIndex(designWith('ranges', written));
    index.apply({ kind: 'settings', settings: { ...designWith('ranges', written), constants: [{ name: 'fee', value: '4', secret: false }] as never } });
    expect(index.coverageOf(K(1))?.items.filter((i) => i.standing === 'shown')).toHaveLength(4);
  });
});

/** Slow and obvious: the text that somebody would read, put together anew for every row. */
function readsSomething(content: CaseContent, row: CaseContent['rows'][number]): boolean {
  const [cover] = content.covers;
  const values = bindRow(content.parameters, row);
  const own = values.get(outcome.id);
  const isOutcomeGiven = own?.kind === 'value' && own.text.trim() !== '';
  if (cover?.outcome != null && isOutcomeGiven) return true;
  const named = content.steps.filter((s) => cover?.expects.includes(s.id));
  return (named.length > 0 || cover?.outcome != null ? named : content.steps).some((step) => {
    if (step.kind !== 'step') return false;
    const read = bindText(step.expected, content.parameters, values).map((p) => (p.kind === 'text' ? p.text.replaceAll(/[^a-z]/gi, '') : p.value.kind === 'value' ? p.value.text : ''));
    const hidesOutcome = cover?.outcome != null && !isOutcomeGiven && step.expected.includes('<outcome>');
    return !hidesOutcome && read.join('').trim() !== '';
  });
}

const someCase = fc.record({
  expected: fc.array(fc.constantFrom('', ' ', '.', 'It is ', '<outcome>', '<reading>', '<stranger>'), { maxLength: 3 }).map((parts) => parts.join('')),
  second: fc.constantFrom('', 'seen', '<outcome>'),
  expects: fc.subarray([stepId('s'), stepId('t')]),
  outcome: fc.constantFrom(null, outcome.id),
  cells: fc.array(fc.record({ p: fc.constantFrom('-1', '0', '7', '100000'), o: fc.constantFrom('', ' ', '""', '(missing)', 'refused') }), { minLength: 1, maxLength: 4 }),
}).map(({ expected, second, expects, outcome: out, cells }) =>
  withSteps(testCase(1, [], [{ ...byReading, expects, outcome: out }]), [plainStep(stepId('s'), 'Give <reading>', expected), plainStep(stepId('t'), 'Look', second)], { rows: cells.map((c, i) => newRow(rowId(`r${i}`), '', c)) }));

test('what is shown is what the rows show that somebody could tell, by the slow reading; taken out into shared steps, or changed step by step, it stays so', () => {
  fc.assert(
    fc.property(someCase, someCase, (before, now) => {
      const told = { ...now, content: { ...now.content, rows: now.content.rows.filter((row) => readsSomething(now.content, row)), steps: [plainStep(stepId('s'), 'x', 'told'), plainStep(stepId('t'), 'x', 'told')] } };
      const wanted = told.content.rows.length === 0 ? 0 : shownOf(designWith('ranges', told));
      expect(shownOf(designWith('ranges', now))).toBe(wanted);
      const index = new CoverageIndex(designWith('ranges', before));
      index.apply({ kind: 'case', id: now.id, case: now });
      expect(index.coverageOf(K(1))?.items.filter((i) => i.standing === 'shown').length).toBe(wanted);
      const shared = { ...now, content: { ...now.content, steps: [{ kind: 'shared' as const, id: stepId('u'), shared: 'S-1' as const, pinned: null, arguments: [] }] } };
      const used = { kind: 'shared' as const, id: 'S-1' as const, version: 1, withdrawn: false, content: { ...EMPTY_SHARED, steps: now.content.steps, parameters: now.content.parameters } };
      expect(shownOf(designWith('ranges', shared, { library: [{ key: 'S-1', used }] }))).toBe(wanted);
    }),
  );
});
