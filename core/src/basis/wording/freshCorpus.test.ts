import { expect, test } from '@jest/globals';
import { CORPUS_GLOSSARY } from './corpus.ts';
import { FRESH_CORPUS, FRESH_RANGES } from './freshCorpus.ts';
import { HELD_OUT_CORPUS, KNOWN_CORPUS } from './laterCorpus.ts';
import { OFF_AT_FIRST } from './rule.ts';
import { Glossary } from './terms.ts';
import { BasisWording } from './wordingMarks.ts';

declare const console: { log(text: string): void };

function marksIn(text: string): string[] {
  const wording = new BasisWording(new Glossary(CORPUS_GLOSSARY), OFF_AT_FIRST);
  wording.put({ id: 'R-1', text });
  return wording.marksOf('R-1').map((m) => `${m.rule}: ${m.words}`);
}

test.each([
  { corpus: FRESH_CORPUS, name: 'the new half' },
  { corpus: KNOWN_CORPUS, name: 'what was added to it' },
  { corpus: HELD_OUT_CORPUS, name: 'sentences the rules do not know' },
])('on $name at most one mark in twenty sentences is false, and at most one in ten weak words is missed', ({ corpus, name }) => {
  const found = corpus.map(([sentence, ...marks]) => ({ sentence, wanted: marks, got: marksIn(sentence) }));
  const wrong = found.flatMap(({ sentence, wanted, got }) => got.filter((mark) => !wanted.includes(mark)).map((mark) => `${sentence} — ${mark}`));
  const missed = found.flatMap(({ sentence, wanted, got }) => wanted.filter((mark) => !got.includes(mark)).map((mark) => `${sentence} — ${mark}`));
  const asked = found.reduce((n, f) => n + f.wanted.length, 0);
  console.log(`weak wording, ${name}: ${corpus.length} sentences, ${wrong.length} false, ${missed.length} of ${asked} missed${[...wrong, ...missed].map((line) => `\n   ${line}`).join('')}`);
  expect(wrong.length / corpus.length).toBeLessThanOrEqual(0.05);
  expect(missed.length / asked).toBeLessThanOrEqual(0.1);
});

test.each(FRESH_RANGES)('%s: %s', (text, words) => {
  expect(marksIn(text).filter((m) => m.startsWith('contradictingRange')).map((m) => m.slice('contradictingRange: '.length))).toEqual(words === null ? [] : [words]);
});
