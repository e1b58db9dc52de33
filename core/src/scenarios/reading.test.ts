import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { AstBuilder, GherkinClassicTokenMatcher, Parser, dialects } from '@cucumber/gherkin';
import type { Background, FeatureChild, Scenario } from '@cucumber/messages';
import { EMPTY_FEATURE, type FeatureContent } from './feature.ts';
import { withText } from './identities.ts';
import { readAnew, readFeature } from './reading.ts';
import { instancesOf, outlineOf, type ReadScenario } from './scenario.ts';
import { tagTest } from './tagExpression.ts';
import { tidied } from './tidying.ts';

let made = 0;
function feature(text: string): FeatureContent {
  return withText(EMPTY_FEATURE, text, () => `i${(made += 1)}`);
}

/** What the parser of the standard makes of it, in our words: the judge. */
function judged(text: string) {
  const { feature: parsed } = new Parser(new AstBuilder(() => ''), new GherkinClassicTokenMatcher()).parse(text);
  const found: unknown[] = [];
  const note = (tags: readonly string[], { background, scenario }: Pick<FeatureChild, 'background' | 'scenario'>): void => {
    if (background !== undefined) found.push(judgedSteps(background, tags));
    if (scenario !== undefined) found.push(judgedSteps(scenario, [...tags, ...scenario.tags.map((t) => t.name)]));
  };
  const tags = parsed?.tags.map((t) => t.name) ?? [];
  for (const child of parsed?.children ?? []) {
    note(tags, child);
    for (const inner of child.rule?.children ?? []) note([...tags, ...(child.rule?.tags.map((t) => t.name) ?? [])], inner);
  }
  return found;
}

function judgedSteps(of: Background | Scenario, tags: readonly string[]): unknown {
  const examples = 'examples' in of ? of.examples : [];
  return [
    of.name,
    [...new Set(tags)],
    of.steps.map((s) => [s.keyword.trim(), s.text, s.dataTable?.rows.map((r) => r.cells.map((c) => c.value)) ?? null, s.docString?.content ?? null]),
    examples.map((e) => [e.name, e.tags.map((t) => t.name), e.tableHeader?.cells.map((c) => c.value) ?? [], e.tableBody.map((r) => r.cells.map((c) => c.value))]),
  ];
}

function ours(scenarios: readonly ReadScenario[]): unknown[] {
  return scenarios.map((s) => [s.name, s.tags, s.steps.map((step) => [step.keyword, step.text, step.table, step.docString]), s.examples.map((e) => [e.name, e.tags, e.header, e.rows.map((r) => r.cells)])]);
}

const ODD = `\uFEFF# a comment first
@bill @f  # and a comment behind

Feature: Billing
  Given this is no step
  | nor a row |
  """
  Scenarios are below

  Background:
    * one
    Given two
      | a\\|b | \\n | \\\\ |
      |  |  | é |

  @slow
  # between

  @x
  Scenario: first
    told in words
    When three
      """json
        { "a": 1 }
      \\"\\"\\"
      """
    # in between
    Then four

  Rule: of money
    @r
    Scenario Outline: with <n>
      Given <n>

      @e1
      Examples: small
        some words
        | n |
        | 1 |
        | 2 |

      Examples:
        | n |
      @e3
      Scenarios: none

  @r2
  Rule: other
  Example: last
`;

describe('a feature is read as the standard reads it', () => {
  it.each([
    ['odd places', ODD],
    ['carriage returns and tabs', ODD.replaceAll('\n', '\r\n').replaceAll('  ', '\t')],
    ['nothing at all', ''],
    ['a name alone', 'Feature: a'],
  ])('%s', (_, text) => expect(ours(outlineOf(feature(text)).scenarios)).toEqual(judged(text.replace(/^\uFEFF/, ''))));

  it('in every language', () => {
    const languages = Object.entries(dialects);
    expect(languages.length).toBeGreaterThan(70);
    for (const [code, words] of languages) {
      const step = (list: readonly string[]): string => list.find((k) => k !== '* ') ?? '* ';
      const text = `# language: ${code}\n${words.feature[0]}: f\n${words.background[0]}:\n${step(words.given)}a\n${words.rule[0]}: r\n${words.scenarioOutline[0]}: s <n>\n${step(words.when)}b <n>\n${step(words.then)}c\n${step(words.and)}d\n${words.examples[0]}:\n|n|\n|1|\n`;
      const outline = outlineOf(feature(text));
      expect([code, outline.problems]).toEqual([code, []]);
      expect(ours(outline.scenarios)).toEqual(judged(text));
      expect(judged(tidied(text))).toEqual(judged(text));
    }
  });

  it('counts what an outline is executed with', () => {
    expect(outlineOf(feature(ODD)).scenarios.map(instancesOf)).toEqual([1, 1, 2, 1]);
  });
});

describe('what is wrong', () => {
  it('is told by its place, and what stands around it is read', () => {
    const text = 'Feature: a\n  Scenario: s\n    Given x\n    nonsense\n    Then y\n      | a | b |\n      | c |\n  @two words\n  Scenario: t\n    Given z\n';
    const outline = outlineOf(feature(text));
    expect(outline.problems).toEqual([
      { code: 'unexpected_line', line: 4, column: 5, found: 'nonsense' },
      { code: 'uneven_table', line: 7, column: 7, found: '1' },
      { code: 'space_in_tag', line: 8, column: 3, found: '@two words' },
    ]);
    expect(outline.scenarios.map((s) => [s.name, s.steps.length])).toEqual([['s', 2], ['t', 1]]);
  });

  it.each([
    ['an unknown language', '# language: xx\nFeature: a\n', 'unknown_language', 1],
    ['a doc string that does not end', 'Feature: a\n  Scenario: s\n    Given x\n    """\n', 'unexpected_end', 5],
    ['tags above nothing', 'Feature: a\n  @t\n', 'unexpected_end', 3],
  ])('%s', (_, text, code, line) => expect(readFeature(text).problems).toMatchObject([{ code, line }]));

  it('is told for more lines than the parser would tell, and never without end', () => {
    const wrong = Array.from({ length: 40 }, (_, i) => `wrong ${i}`).join('\n');
    const read = readFeature(`Feature: a\n  Scenario: s\n    Given x\n${wrong}\n  Scenario: t\n`);
    expect(read.problems).toHaveLength(40);
    expect(read.lines.filter((l) => l.role === 'scenario')).toHaveLength(2);
    const prose = readFeature('words\n'.repeat(10_000));
    expect(prose.problems.at(-1)).toMatchObject({ code: 'not_read_further' });
    expect(prose.problems.length).toBeLessThan(200);
  });
});

describe('tidying up', () => {
  const untidy = 'Feature: a\nwords\n@t\nScenario: s\nGiven x\n|a|bb|\n  | ccc|1\\||\n"""\n  kept\n"""\n\n# c\nRule: r\n@u\nScenario Outline: o\n* <n>\nExamples:\n|name|n|\n|水|1|\n|abc|-12.5|\n';

  it('sets lines in by what they are, aligns tables, and says what it said', () => {
    expect(tidied(untidy)).toBe(
      'Feature: a\n  words\n  @t\n  Scenario: s\n    Given x\n      | a   | bb  |\n      | ccc | 1\\| |\n      """\n        kept\n      """\n\n  # c\n  Rule: r\n    @u\n    Scenario Outline: o\n      * <n>\n      Examples:\n        | name | n     |\n        | 水   |     1 |\n        | abc  | -12.5 |\n',
    );
    for (const text of [untidy, ODD, ODD.replaceAll('\n', '\r\n')]) {
      expect(judged(tidied(text).replace(/^\uFEFF/, ''))).toEqual(judged(text.replace(/^\uFEFF/, '')));
      expect(tidied(tidied(text))).toBe(tidied(text));
    }
  });

  it('leaves alone what it cannot read', () => {
    const text = 'words\n   more | words |\n';
    expect(tidied(text)).toBe(text);
  });
});

it('a tag expression asks for what has its tags; one that is being written asks for nothing yet', () => {
  const test = tagTest('@smoke and not (@slow or @manual)');
  expect([['@smoke'], ['@smoke', '@slow'], [], ['@smoke', '@x']].map((tags) => test?.(tags))).toEqual([true, false, false, true]);
  expect(tagTest(' ')?.([])).toBe(true);
  expect(tagTest('@smoke and (')).toBeNull();
});

describe('a text read after one that is nearly the same', () => {
  const line = fc.constantFrom('', '  ', 'Feature: f', '  Rule: r', '  Background:', '  Scenario: s', '  Scenario Outline: o', '    Given a <x>', '    And b', '    * c', '    Examples: e', '      | x |', '      | 1 | 2 |', '      """', '      ```', '@t', '@u @v w', '# said', '# language: pt', 'told', '  Cenário: z', '\tWhen d\r', '    Dado e');
  const text = (lines: readonly string[]): string => lines.join('\n');
  const good = ['@f', 'Feature: f', 'told', '', '  Background:', '    Given a', '', '  @t', '  Scenario: s', '    Given b', '      | x |', '', '  # said', '  @u', '  Scenario Outline: o', '', '    Given <x>', '      """', '      Given it', '      """', '', '    @v', '    Examples:', '      | x |', '      | 1 |', '', '  Rule: r', '', '    Scenario: t', '      told', '', '    Scenario: u', '      When d'];
  const portuguese = ['# language: pt', 'Funcionalidade: f', '', '  Cenário: s', '    Dado b', '', '  Cenário: t', '    Quando c'];
  const change = fc.record({ at: fc.nat(40), removed: fc.nat(2), added: fc.array(line, { maxLength: 2 }) });
  const letter = fc.record({ at: fc.nat(400), removed: fc.nat(3), added: fc.constantFrom('', 'x', ':', '|', '"', '@', '#', '\n', ' ', 'Scenario: n\n') });

  it('says what it says when it is read alone', () => {
    fc.assert(fc.property(fc.constantFrom(good, portuguese, good.map((l) => `${l}\r`), [...good.slice(8)]), fc.array(change, { minLength: 1, maxLength: 4 }), fc.array(letter, { minLength: 1, maxLength: 6 }), (begun, changes, letters) => {
      const typed = [text(begun)];
      for (const { at, removed, added } of letters) {
        const now = typed.at(-1) ?? '';
        typed.push(now.slice(0, at) + added + now.slice(at + removed));
      }
      let lines: readonly string[] = begun;
      for (const { at, removed, added } of changes) {
        lines = lines.toSpliced(at, removed, ...added);
        typed.push(text(lines));
      }
      for (const now of typed) {
        expect(readFeature(now)).toEqual(readAnew(now));
        // What is no good Gherkin is read anew the next time: begin again from what is.
        if (readFeature(now).problems.length > 0) readFeature(text(begun));
      }
    }), { numRuns: 300 });
  });

  it('is not read as a whole when one types in a long one', () => {
    const long = (name: string): string => text(['Feature: f', ...Array.from({ length: 2_000 }, (_, i) => `  Scenario: ${i === 900 ? name : i}\n    Given a reading of ${i}\n      | a |\n      | ${i} |\n`)]);
    const timed = (read: () => unknown): number => {
      const began = performance.now();
      read();
      return performance.now() - began;
    };
    readFeature(long('begun'));
    // In turns, and the best of each: what else the machine does falls on both.
    const texts = Array.from({ length: 9 }, (_, i) => long(`b${i}`));
    const turns = texts.map((now) => ({ whole: timed(() => readAnew(now)), within: timed(() => readFeature(now)) }));
    const whole = Math.min(...turns.map((turn) => turn.whole));
    const within = Math.min(...turns.map((turn) => turn.within));
    expect(within).toBeLessThan(whole / 3);
  });
});
