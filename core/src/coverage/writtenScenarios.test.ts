import { describe, expect, it } from '@jest/globals';
import type { CaseContent } from '../cases/index.ts';
import { coverageItems } from '../conditions/index.ts';
import { EMPTY_FEATURE, scenariosAsCases, withNumbers, withScenariosOf, withText } from '../scenarios/index.ts';
import { CoverageIndex, FILLINGS, fillGap, writtenCases, type DesignCase } from './index.ts';
import { C, K, condition, designOf, requirement, MODELS } from './testDesign/index.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const EMPTY = withText({ ...EMPTY_FEATURE, path: 'a.feature' }, 'Feature: f\n', newId);

describe.each(Object.entries(MODELS))('scenarios written for every gap of a %s model', (_, model) => {
  const content = condition(1, [1], { model }).content;
  const seen = { id: K(1), version: 1, content };
  const standings = (cases: readonly { readonly id: DesignCase['id']; readonly content: CaseContent }[]) =>
    new CoverageIndex(designOf({ requirements: [requirement(1)], conditions: [condition(1, [1], { model })], cases: cases.map((c): DesignCase => ({ ...c, state: 'draft', version: 1 })) })).coverageOf(K(1))?.items.map((i) => [i.item.key, i.standing]);

  it.each(FILLINGS)('%s: show what the cases would show', (how) => {
    const filling = fillGap(content, coverageItems(content).map((i) => i.key), how);
    const cases = writtenCases(seen, filling, how, '', newId);
    const written = withNumbers(withScenariosOf(EMPTY, writtenCases(seen, filling, how, '', newId, 'scenario'), newId), null);
    const scenarios = scenariosAsCases('F-1', written);
    expect(scenarios).toHaveLength(cases.length);
    expect(standings(scenarios)).toEqual(standings(cases.map((c, i) => ({ id: C(i + 1), content: c }))));
    expect(standings(scenarios)?.length).toBeGreaterThan(0);
  });
});
