import { describe, expect, it } from '@jest/globals';
import { newCover } from '../cases/index.ts';
import fc from 'fast-check';
import { asJson, mergeContent } from '../versions/index.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { movedToFeature, withMoved, withPlaced } from './moving.ts';
import { outlineOf } from './scenario.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;

function feature(text: string, before: FeatureContent = EMPTY_FEATURE): FeatureContent {
  return withNumbers(withText(before, text, newId), before === EMPTY_FEATURE ? null : before);
}

/** The number of each scenario beside its name. */
function numbered(content: FeatureContent): string[] {
  return outlineOf(content).scenarios.map((s) => `${s.number} ${s.name}`);
}

const READINGS = `Feature: Taking a reading
  Read once a month.

  Background:
    Given a meter

  @smoke
  # Asked for by the town
  Scenario: inside the range
    When the clerk enters 12
    Then it is stored

  Scenario: outside the range
    When the clerk enters -1
    Then it is refused
`;

const piece = fc.constantFrom('Feature: f', '  Scenario: a', '  Scenario: b', '  Scenario Outline: o', '  Background:', '  Rule: r', '    Given x', '    And x', '    """', '   | a | b |', '   | a |', '  Examples:', '@t', '# c', '', '   ', 'words', '#language: pt', 'Funcionalidade: f', '  Cenário: c', '\tGiven tab', '٭ نص عربي');
const ending = fc.constantFrom('\n', '\r\n');
const anyText = fc.tuple(fc.array(fc.tuple(piece, ending), { maxLength: 30 }), fc.boolean(), fc.boolean()).map(([lines, bom, end]) => (bom ? '\uFEFF' : '') + lines.map(([l, e], i) => (i === lines.length - 1 && !end ? l : l + e)).join(''));

describe('the text of a feature', () => {
  it('comes out as it went in, byte for byte, whatever it is', () => {
    fc.assert(fc.property(anyText, (text) => expect(textOf(feature(text))).toBe(text)), { numRuns: 500 });
  });

  it('put over any other comes out as it is, and every scenario keeps one number that no other has', () => {
    const unixText = anyText.map((t) => t.replaceAll('\r', '').replace('\uFEFF', ''));
    fc.assert(
      fc.property(unixText, unixText, (first, second) => {
        const content = feature(second, feature(first));
        expect(textOf(content)).toBe(second);
        const numbers = content.parts.filter((p) => p.kind === 'scenario').map((p) => p.number);
        expect(new Set(numbers).size).toBe(numbers.length);
        expect(numbers).not.toContain(0);
        const ids = content.parts.map((p) => p.id);
        expect(new Set(ids).size).toBe(ids.length);
      }),
      { numRuns: 300 },
    );
  });

  it('keeps carriage returns and the byte order mark through an editor that shows neither', () => {
    const content = feature(`\uFEFF${READINGS.replaceAll('\n', '\r\n')}`);
    const edited = feature(READINGS.replace('enters 12', 'enters 13'), content);
    expect(textOf(edited)).toBe(`\uFEFF${READINGS.replace('enters 12', 'enters 13').replaceAll('\n', '\r\n')}`);
    const mixed = feature('Feature: a\r\n\n  Scenario: s\n    Given x\r\n');
    expect(textOf(feature('Feature: a\n\n  Scenario: s\n    Given y\n', mixed))).toBe('Feature: a\r\n\n  Scenario: s\n    Given y\r\n');
  });
});

describe('a scenario stays who it is', () => {
  const before = feature(READINGS);

  it('with the tags and the comments right above it', () => {
    expect(before.parts.map((p) => [p.kind, p.number, p.lines.length])).toEqual([['head', 0, 3], ['background', 0, 3], ['scenario', 1, 6], ['scenario', 2, 4]]);
  });

  it('when it is moved, renamed and changed, and a new one gets the next number', () => {
    const [head = '', inside = '', outside = ''] = [READINGS.slice(0, READINGS.indexOf('  @smoke')), READINGS.slice(READINGS.indexOf('  @smoke'), READINGS.indexOf('  Scenario: outside')), READINGS.slice(READINGS.indexOf('  Scenario: outside'))];
    expect(numbered(feature(head + outside + inside, before))).toEqual(['0 ', '2 outside the range', '1 inside the range']);
    expect(numbered(feature(READINGS.replace('inside the range', 'within the range'), before))).toEqual(['0 ', '1 within the range', '2 outside the range']);
    expect(numbered(feature(READINGS.replace('  Scenario: outside', '  Scenario: empty\n    When nothing is entered\n\n  Scenario: outside'), before))).toEqual(['0 ', '1 inside the range', '3 empty', '2 outside the range']);
  });

  it('when another takes its name', () => {
    expect(numbered(feature(READINGS.replace('  Scenario: outside', '  Scenario: inside the range\n    Given anything\n\n  Scenario: outside'), before))).toEqual(['0 ', '1 inside the range', '3 inside the range', '2 outside the range']);
  });

  it('when a doc string that somebody has begun swallows it for a while', () => {
    const begun = withText(before, READINGS.replace('enters 12', 'enters 12\n    """'), newId);
    expect(begun.parts).toHaveLength(3);
    const ended = withText(begun, READINGS.replace('enters 12', 'enters 12\n    """\n    """'), newId, before.parts);
    expect(ended.parts.map((p) => p.id)).toEqual(before.parts.map((p) => p.id));
  });

  it('and a number that was taken is never given again', () => {
    const without = feature(READINGS.slice(0, READINGS.indexOf('  Scenario: outside')), before);
    expect(numbered(feature(`${textOf(without)}  Scenario: third\n    Given other things\n`, without))).toEqual(['0 ', '1 inside the range', '3 third']);
  });
});

it('what two people write in one feature is merged by scenario and by step', () => {
  const base = feature(READINGS);
  const mine = withText(base, READINGS.replace('it is stored', 'it is kept').replace('  Scenario: outside', '  Scenario: mine\n    Given a\n\n  Scenario: outside'), newId);
  const theirs = feature(`${READINGS.replace('the clerk enters 12', 'the clerk enters 99').replace('refused', 'sent back')}\n  Scenario: theirs\n    Given b\n`, base);
  const { content, conflicts } = mergeContent(asJson(base), asJson(mine), asJson(theirs));
  expect(conflicts).toEqual([]);
  const merged = withNumbers(content as unknown as FeatureContent, theirs);
  expect(numbered(merged)).toEqual(['0 ', '1 inside the range', '4 mine', '2 outside the range', '3 theirs']);
  expect(outlineOf(merged).scenarios.map((s) => s.steps.map((step) => step.text))).toEqual([['a meter'], ['the clerk enters 99', 'it is kept'], ['a'], ['the clerk enters -1', 'it is sent back'], ['b']]);
  const clash = mergeContent(asJson(base), asJson(mine), asJson(feature(READINGS.replace('it is stored', 'it is saved'), base)));
  expect(clash.conflicts.map((c) => [c.mine, c.theirs])).toEqual([['    Then it is kept', '    Then it is saved']]);
});

describe('a scenario moves with all that is its own', () => {
  const text = '@a\nFeature: f\n\n  Background:\n    Given x\n\n  # of one\n  @t\n  Scenario: one\n    Given 1\n\n  Rule: r\n\n    Scenario: two\n      Given 2\n\n    Scenario: three\n      Given 3';
  const moved = (name: string, ...steps: (1 | -1)[]): string => {
    let content = feature(text);
    const id = outlineOf(content).scenarios.find((s) => s.name === name)!.part;
    for (const by of steps) content = withMoved(content, id, by, newId);
    return textOf(content);
  };

  it('into a rule and out of it, and the end of the file leaves a blank line where it was', () => {
    expect(moved('one', 1)).toBe(text.replace('  # of one\n  @t\n  Scenario: one\n    Given 1\n\n  Rule: r\n\n', '  Rule: r\n\n  # of one\n  @t\n  Scenario: one\n    Given 1\n\n'));
    expect(moved('three', -1)).toBe(text.replace('    Scenario: two\n      Given 2\n\n    Scenario: three\n      Given 3', '    Scenario: three\n      Given 3\n\n    Scenario: two\n      Given 2'));
  });

  it('there and back it is where it was; beyond the ends it stays', () => {
    for (const name of ['one', 'two', 'three']) for (const by of [1, -1] as const) if (moved(name, by) !== text) expect(moved(name, by, by === 1 ? -1 : 1)).toBe(text);
    expect([moved('one', -1), moved('three', 1)]).toEqual([text, text]);
  });
});

describe('a scenario is put elsewhere', () => {
  const bare = feature('Feature: f\n  Background:\n    Given x\n\n  Scenario: one\n    Given 1\n\n  Scenario: two\n    Given 2\n\n  Rule: r\n    Scenario: three\n      Given 3');
  const partOf = (content: FeatureContent, name: string) => outlineOf(content).scenarios.find((s) => s.name === name)!.part;
  const names = (content: FeatureContent): string[] => outlineOf(content).scenarios.filter((s) => s.kind === 'scenario').map((s) => `${s.rule === null ? '' : 'r '}${s.name}`);

  it('in front of another one, at the end, and nowhere it cannot be', () => {
    const placed = (name: string, before: string | null) => withPlaced(bare, partOf(bare, name), before === null ? null : partOf(bare, before), newId);
    expect(names(placed('two', 'one'))).toEqual(['two', 'one', 'r three']);
    expect(names(placed('one', null))).toEqual(['two', 'r three', 'r one']);
    expect(names(placed('three', 'one'))).toEqual(['three', 'one', 'two']);
    expect(placed('one', 'two')).toBe(bare);
    expect(withPlaced(bare, partOf(bare, 'one'), bare.parts[1]!.id, newId)).toBe(bare);
    expect(withPlaced(bare, bare.parts[0]!.id, null, newId)).toBe(bare);
    expect(textOf(placed('three', 'one')).endsWith('  Rule: r')).toBe(true);
  });

  it('in another feature, above its rules, with what it covers; the ends of lines are those of the file', () => {
    const from = { ...bare, parts: bare.parts.map((p) => (p.number === 0 ? p : { ...p, covers: [newCover('K-1', p.number)] })) };
    const to = feature('Feature: g\r\n  Scenario: a\r\n    Given a\r\n  Rule: s\r\n    Scenario: b\r\n      Given b');
    const moved = movedToFeature(from, to, partOf(from, 'one'), newId)!;
    expect(names(moved.from)).toEqual(['two', 'r three']);
    expect(textOf(moved.to)).toBe('Feature: g\r\n  Scenario: a\r\n    Given a\r\n\r\n  Scenario: one\r\n    Given 1\r\n\r\n  Rule: s\r\n    Scenario: b\r\n      Given b');
    expect(withNumbers(moved.to, to).parts.map((p) => [p.number, p.covers.length])).toEqual([[0, 0], [1, 0], [3, 1], [0, 0], [2, 0]]);
    const last = movedToFeature(from, feature('Feature: h\n  Scenario: a\n    Given a'), partOf(from, 'three'), newId)!;
    expect(textOf(last.to)).toBe('Feature: h\n  Scenario: a\n    Given a\n\n    Scenario: three\n      Given 3');
    expect(textOf(last.from)).toBe('Feature: f\n  Background:\n    Given x\n\n  Scenario: one\n    Given 1\n\n  Scenario: two\n    Given 2\n\n  Rule: r');
  });

  it('not where another language is spoken, nor what is no scenario', () => {
    expect(movedToFeature(bare, feature('# language: pt\nFuncionalidade: g\n'), partOf(bare, 'one'), newId)).toBeNull();
    expect(movedToFeature(bare, feature('Feature: g\n'), bare.parts[1]!.id, newId)).toBeNull();
  });
});
