import { describe, expect, it } from '@jest/globals';
import { dialects } from '@cucumber/gherkin';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '../cases/index.ts';
import { sharedBeginnings, withBackground } from './backgrounds.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withScenariosOf } from './fromCase.ts';
import { withNumbers, withText } from './identities.ts';
import { keywordFor } from './keywords.ts';
import { planOutline } from './outlinePlan.ts';
import { withOutline } from './outlining.ts';
import { outlineOf } from './scenario.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);

const CASE: CaseContent = {
  ...EMPTY_CASE,
  title: 'Readings',
  preconditions: 'x holds',
  steps: [plainStep(stepId('s1'), 'enter <n>', ''), plainStep(stepId('s2'), 'send', 'it says <m>')],
  parameters: ['n', 'm'].map((name) => ({ id: parameterId(name), name, type: 'text', default: '', description: '' })),
  rows: [newRow(rowId('r1'), 'one', { n: '1', m: 'a' }), newRow(rowId('r2'), 'two', { n: '2', m: 'b' })],
};
const LANGUAGES = Object.keys(dialects);

describe('what is written into a file is good Gherkin in every language of the standard', () => {
  it('knows them all', () => {
    expect(LANGUAGES.length).toBeGreaterThan(70);
  });

  it.each(LANGUAGES)('%s', (language) => {
    const empty = feature(`# language: ${language}\n${keywordFor('feature', language)} f\n`);
    const written = withNumbers(withScenariosOf(empty, [CASE, { ...CASE, title: 'Plain 7', rows: [] }], newId), null);
    const { scenarios, problems } = outlineOf(written);
    expect(problems).toEqual([]);
    expect(scenarios.map((s) => [s.kind, s.name, s.steps.map((step) => step.text), s.examples.map((e) => [e.header, e.rows.map((r) => r.cells)])])).toEqual([
      ['scenario', 'Readings', ['x holds', 'enter <n>', 'send', 'it says <m>'], [[['case', 'n', 'm'], [['one', '1', 'a'], ['two', '2', 'b']]]]],
      ['scenario', 'Plain 7', ['x holds', 'enter <n>', 'send', 'it says <m>'], []],
    ]);

    // Two that differ in a value become one outline; what all begin with becomes the background.
    const [given, when] = [keywordFor('given', language), keywordFor('when', language)];
    const scenario = (n: number): string => `  ${keywordFor('scenario', language)} number ${n}\n    ${given}a meter\n    ${when}the clerk enters ${n}\n\n`;
    const doubles = feature(`# language: ${language}\n${keywordFor('feature', language)} f\n\n${scenario(4)}${scenario(5)}`);
    const parts = doubles.parts.filter((p) => p.kind === 'scenario').map((p) => p.id);
    const plan = planOutline(doubles, parts);
    if (typeof plan === 'string') throw new Error(`They differ in a value: expected a plan, got ${plan}`);
    const outlined = withOutline(doubles, parts, { name: plan.name, columns: plan.columns.map((c) => c.name) }, newId);
    const [only, ...others] = outlined === null ? [] : outlineOf(outlined).scenarios;
    expect([only?.examples.map((e) => e.rows.map((r) => r.cells)), others]).toEqual([[[['4'], ['5']]], []]);
    if (sharedBeginnings(doubles).length === 0) return;
    const grounded = withBackground(doubles, null, newId);
    expect([outlineOf(grounded).problems, outlineOf(grounded).scenarios.map((s) => [s.kind, s.steps.length])]).toEqual([[], [['background', 1], ['scenario', 1], ['scenario', 1]]]);
    expect(textOf(grounded)).not.toBe(textOf(doubles));
  });
});
