import { describe, expect, test } from '@jest/globals';
import { CORPUS, CORPUS_GLOSSARY, CORPUS_RANGES } from './corpus.ts';
import { dismissalOf } from './dismissal.ts';
import { WORDING_RULES } from './rule.ts';
import { sentencesOf } from './sentences.ts';
import { Glossary } from './terms.ts';
import { BasisWording } from './wordingMarks.ts';

declare const console: { log(text: string): void };
declare const performance: { now(): number };

const glossary = new Glossary(CORPUS_GLOSSARY);

function marksIn(text: string, others: readonly string[] = []) {
  const wording = new BasisWording(glossary);
  wording.put({ id: 'R-1', text });
  others.forEach((other, i) => wording.put({ id: `R-${i + 2}`, text: other }));
  return wording.marksOf('R-1');
}

test('the corpus: exactly what is stated is marked', () => {
  expect(CORPUS.length).toBeGreaterThanOrEqual(200);
  const wrong: string[] = [];
  const counts = new Map(WORDING_RULES.map((rule) => [rule as string, 0]));
  for (const [sentence, ...expected] of CORPUS) {
    const got = marksIn(sentence).map((m) => `${m.rule}: ${m.words}`);
    for (const mark of got) counts.set(mark.slice(0, mark.indexOf(':')), (counts.get(mark.slice(0, mark.indexOf(':'))) ?? 0) + 1);
    if ([...got].sort().join('\n') !== [...expected].sort().join('\n')) wrong.push(`${sentence}\n   expected ${expected.join(', ') || 'nothing'}\n   got      ${got.join(', ') || 'nothing'}`);
  }
  console.log(`weak wording: ${CORPUS.length} sentences, ${CORPUS.filter(([, ...m]) => m.length === 0).length} of them clean; marks ${[...counts].map(([r, n]) => `${r} ${n}`).join(', ')}`);
  expect(wrong).toEqual([]);
});

test('every rule of single sentences has at least five sentences that break it', () => {
  for (const rule of WORDING_RULES.filter((r) => r !== 'contradictingRange')) {
    expect(CORPUS.filter(([, ...marks]) => marks.some((m) => m.startsWith(`${rule}:`))).length).toBeGreaterThanOrEqual(5);
  }
});

describe('ranges that contradict each other', () => {
  test.each(CORPUS_RANGES)('$one / $other', ({ one, other, words }) => {
    const marks = marksIn(one, [other]).filter((m) => m.rule === 'contradictingRange');
    expect(marks.map((m) => m.words)).toEqual(words === null ? [] : [words]);
    if (words !== null) expect(marks[0]?.against?.id).toBe('R-2');
  });

  test('the other one mended, the mark is gone', () => {
    const wording = new BasisWording(glossary);
    wording.put({ id: 'R-1', text: 'A password has 12 to 64 characters.' });
    wording.put({ id: 'R-2', text: 'A password has 8 to 64 characters.' });
    expect([wording.marksOf('R-1').length, wording.marksOf('R-2').length]).toEqual([1, 1]);
    wording.put({ id: 'R-2', text: 'A password has 12 to 64 characters.' });
    expect([wording.marksOf('R-1').length, wording.marksOf('R-2').length]).toEqual([0, 0]);
  });
});

describe('in Markdown', () => {
  test('marks stand where the words stand in the source, whatever surrounds them', () => {
    const text = '# Some heading\n\nA **clear** message.\n\n- etc. in a list\n- `etc.` in code\n\n| several | ok |\n|---|---|\n\n```\nmany\n```\nThe term is TBD.';
    const marks = marksIn(text);
    expect(marks.map((m) => text.slice(m.start, m.end))).toEqual(['Some', 'clear', 'etc.', 'several', 'TBD']);
  });

  test('sentences are told apart, abbreviations are no ends', () => {
    const text = 'One sentence, e.g. this. Another one!\nIt goes on here.\n\n1. First item\n2. Second item';
    expect(sentencesOf(text).map((s) => s.plain)).toEqual(['One sentence, e.g. this.', 'Another one!', 'It goes on here.', 'First item', 'Second item']);
  });

  test('a hostile text is looked through in time', () => {
    const texts = ['('.repeat(40_000), `${'a '.repeat(20_000)}and`, '1 '.repeat(20_000), 'and the b is '.repeat(3_000), '`'.repeat(40_000), `must ${', and it is'.repeat(4_000)}`, '<'.repeat(40_000), '\n|'.repeat(15_000)];
    for (const text of texts) {
      const begun = performance.now();
      marksIn(text);
      expect({ text: text.slice(0, 20), slow: performance.now() - begun > 4_000 }).toEqual({ text: text.slice(0, 20), slow: false });
    }
  });
});

test('a dismissed mark stays away until its sentence changes', () => {
  const dismissed = marksIn('The form is simple. It has 3 fields.')[0]!;
  const dismissal = { id: 'd', rule: dismissed.rule, words: dismissed.words, sentence: dismissed.sentence, reason: 'agreed with the office', by: 'A', at: '2026-01-01T00:00:00Z' };
  const standing = (text: string) => marksIn(text).filter((m) => dismissalOf(m, [dismissal]) === null).map((m) => m.words);
  expect(standing('Before it. The form is\nsimple. It has 4 fields.')).toEqual([]);
  expect(standing('The form is simple for members.')).toEqual(['simple']);
});

test('terms are found where they occur, the longest first', () => {
  const text = 'Readings at Social Tariff; no proofreading.';
  expect(glossary.placesIn(text).map((p) => [p.term.term, text.slice(p.start, p.end)])).toEqual([['reading', 'Readings'], ['social tariff', 'Social Tariff']]);
});

test('terms of any characters are found as they are written', () => {
  for (const term of ['roll-over', 'a.b', 'c++', '(d)', '[e]', 'f|g', 'h/i', 'j\\k', '^l$', '*', '💧', 'p{q}', 'für']) {
    const odd = new Glossary([{ id: 't', term, forms: ['', ' '], definition: '' }]);
    expect(odd.placesIn(`x ${term} y`).map((p) => [p.start, p.end])).toEqual([[2, 2 + term.length]]);
  }
});
