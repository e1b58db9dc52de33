import { describe, expect, it } from '@jest/globals';
import { scenariosAsCases } from './asCase.ts';
import { planFeatures } from './bringing.ts';
import { EMPTY_FEATURE, textOf } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { phraseUses } from './phraseUse.ts';
import { instancesOf, outlineOf } from './scenario.ts';
import { tidied } from './tidying.ts';
import { pace } from '../../../scripts/pace.mjs';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string) => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);

/** In milliseconds; a quadratic step over so many lines would take minutes. */
const BEARABLE = 12_000;

describe('what is larger than anybody writes', () => {
  it('ten thousand rows of examples are read, judged, tidied and changed by one row', () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `      |${i}|value \\| ${i}|`);
    const text = `Feature: f\n  Scenario Outline: o\n    Given <n>\n    Examples:\n      |n|v|\n${rows.join('\n')}\n`;
    const began = performance.now();
    const content = feature(text);
    expect(outlineOf(content).scenarios.map(instancesOf)).toEqual([10_000]);
    expect(scenariosAsCases('F-1', content)[0]?.content.rows.at(-1)?.cells).toEqual({ n: '9999', v: 'value | 9999' });
    expect(outlineOf(feature(tidied(text))).scenarios[0]?.examples[0]?.rows.at(-1)?.cells).toEqual(['9999', 'value | 9999']);
    const edited = withText(content, text.replace('|5000|', '|five thousand|').replace('|value \\| 7|', '|seven|'), newId);
    const [before, after] = [content, edited].map((c) => new Set(c.parts.flatMap((p) => p.lines.map((l) => l.id))));
    expect([...(before ?? [])].filter((id) => after?.has(id) === false)).toEqual([]);
    expect(performance.now() - began).toBeLessThan(BEARABLE * pace());
  });

  it('a file of five megabytes comes out as it went in, and one that is all other words does not take for ever', () => {
    const line = `    Given a step of the long file with "words" and 12 numbers ${'x'.repeat(40)}\n`;
    const text = `Feature: f\n${Array.from({ length: 50 }, (_, i) => `  Scenario: ${i}\n${line.repeat(1_000)}`).join('')}`;
    expect(text.length).toBeGreaterThan(5_000_000);
    const began = performance.now();
    const content = feature(text);
    expect(textOf(content)).toBe(text);
    expect(phraseUses(content)).toHaveLength(50_000);
    expect(textOf(withText(content, text.replaceAll('Given', 'When').replaceAll('long', 'short'), newId))).toBe(text.replaceAll('Given', 'When').replaceAll('long', 'short'));
    expect(performance.now() - began).toBeLessThan(BEARABLE * 3 * pace());
  });

  it('a thousand files that were all renamed are found again', () => {
    const texts = Array.from({ length: 1_000 }, (_, i) => `Feature: f${i}\n  Scenario: s\n    Given what only ${i} says\n    When it is ${i % 7}\n    Then done\n`);
    const here = texts.map((text, i) => ({ id: `F-${i + 1}` as const, content: withText({ ...EMPTY_FEATURE, path: `old/${i}.feature` }, text, newId), brought: text }));
    const began = performance.now();
    const { planned, missing } = planFeatures(texts.map((text, i) => ({ path: `new/${i}.feature`, text })), here, newId);
    expect([planned.filter((p) => p.kind === 'changed' && p.content.path === `new/${Number(p.id.slice(2)) - 1}.feature`).length, missing]).toEqual([1_000, []]);
    expect(performance.now() - began).toBeLessThan(BEARABLE * pace());
  });
});

describe('what is odd', () => {
  it.each([
    ['right to left', 'Feature: خاصية\n  Scenario: سيناريو\n    Given العداد "م-١"\n      | عمود | قيمة |\n'],
    ['two of one name', 'Feature: f\n  Scenario: s\n    Given x\n  Scenario: s\n    Given x\n'],
    ['no line feed anywhere', 'Feature: f'],
    ['only blank lines', '\n\n \t\n'],
    ['carriage returns alone', 'Feature: f\r  Scenario: s\r'],
    ['a byte order mark alone', '\uFEFF'],
    ['half a table at the end', 'Feature: f\n  Scenario: s\n    Given x\n      | a |\n      | b'],
    ['names of what every object has', 'Feature: __proto__\n  Scenario: constructor\n    Given <toString>\n    Examples:\n      | toString |\n      | hasOwnProperty |\n'],
    ['sequences that replacing could take for its own', 'Feature: $& $1\n  Scenario: $`\n    Given "$\'" and $$\n'],
  ])('%s', (_, text) => {
    const content = feature(text);
    expect(textOf(content)).toBe(text);
    const other = feature('Feature: f\n  Scenario: s\n    Given y\n');
    expect(textOf(withText(other, text.replace(/^\uFEFF/, ''), newId))).toBe(text.replace(/^\uFEFF/, ''));
    expect(withText(content, text, newId).parts).toBe(content.parts);
    const numbers = content.parts.filter((p) => p.kind === 'scenario').map((p) => p.number);
    expect(numbers).toEqual(numbers.map((_n, i) => i + 1));
    expect(scenariosAsCases('F-1', content)).toHaveLength(numbers.length);
    expect(tidied(tidied(text))).toBe(tidied(text));
  });
});
