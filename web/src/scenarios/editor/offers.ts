import { NO_OWN_KINDS, isOwnKind, keywordsOf, languageOf, piecesOf, takenApart, type OwnKinds, type ReadFeature, type ValueKind } from '@caderno/core/scenarios';
import { acceptCompletion, snippet, type Completion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { Prec, type Extension } from '@codemirror/state';
import { keymap } from '@codemirror/view';
import { offering } from '../../editor/index.ts';
import { countOf } from '../../look/index.ts';
import type { ShownPhrase } from '../usePhrases.ts';
import { readField } from './readField.ts';

const MOST_OFFERED = 12;

/** What is offered while writing: phrases behind the keyword of a step, agreed and frequent ones first; keywords where a line begins. */
export function offers(phrases: readonly ShownPhrase[], own: OwnKinds = NO_OWN_KINDS): Extension {
  const sought = soughtOf(phrases);
  return [
    offering((at) => offered(at, sought, own)),
    // Tab leads on where nothing is offered.
    Prec.highest(keymap.of([{ key: 'Tab', run: acceptCompletion }])),
  ];
}

/** A phrase with its texts in small letters, made once: with each key all of them are gone through. */
export interface SoughtPhrase {
  readonly phrase: ShownPhrase;
  readonly key: string;
  readonly shown: string;
}

export function soughtOf(phrases: readonly ShownPhrase[]): readonly SoughtPhrase[] {
  return phrases.map((phrase) => ({ phrase, key: phrase.key.toLowerCase(), shown: phrase.shown.toLowerCase() }));
}

/** What is offered at a place. */
export function offered(at: CompletionContext, phrases: readonly SoughtPhrase[], own: OwnKinds = NO_OWN_KINDS): CompletionResult | null {
  const line = at.state.doc.lineAt(at.pos);
  const read = at.state.field(readField);
  const { role = 'blank', keyword = '' } = read.lines[line.number - 1] ?? {};
  const start = line.from + (line.text.length - line.text.trimStart().length);
  if (role === 'docString' || role === 'docStringEdge' || role === 'comment' || role === 'tableRow' || role === 'tags') return null;
  if (role !== 'step') return keywordOffers(at, read, start);
  const from = start + keyword.length + 1;
  if (at.pos < from) return keywordOffers(at, read, start);
  const typed = at.state.sliceDoc(from, at.pos);
  if (typed.trim() === '' && !at.explicit) return null;
  const found = fitting(typed, phrases, own);
  const isWhole = found.length === 1 && found[0]?.key === takenApart(typed, own).key;
  return found.length === 0 || isWhole ? null : { from, to: line.to, options: found.map((phrase, i) => phraseOffer(phrase, typed, own, found.length - i)), filter: false };
}

/** Phrases that begin with what is written, then those that have its words. */
function fitting(typed: string, phrases: readonly SoughtPhrase[], own: OwnKinds): readonly ShownPhrase[] {
  const begun = takenApart(typed, own).key.toLowerCase();
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const beginning = firstOf(phrases, ({ key }) => key.startsWith(begun), MOST_OFFERED);
  const having = words.length === 0 ? [] : firstOf(phrases, ({ key, shown }) => !key.startsWith(begun) && words.every((w) => shown.includes(w)), MOST_OFFERED - beginning.length);
  return [...beginning, ...having].map(({ phrase }) => phrase);
}

/** The first so many that fit: those behind them are not looked at. */
function firstOf<T>(list: readonly T[], fits: (one: T) => boolean, most: number): T[] {
  const found: T[] = [];
  for (const one of list) {
    if (found.length >= most) break;
    if (fits(one)) found.push(one);
  }
  return found;
}

function phraseOffer(phrase: ShownPhrase, typed: string, own: OwnKinds, boost: number): Completion {
  const given = takenApart(typed, own).values.map((v) => v.text);
  return { label: phrase.shown, detail: `${phrase.agreed ? 'agreed · ' : ''}${countOf(phrase.uses, 'use')}`, apply: snippet(templateOf(phrase, given)), boost };
}

/** The phrase with its values as holes to go through with Tab; what was written already stands in the first. */
function templateOf({ key, holes }: ShownPhrase, given: readonly string[]): string {
  let next = 0;
  return piecesOf(key)
    .map((piece) => {
      if (piece.kind === 'words') return piece.text.replace(/[\\#$]/g, '\\$&');
      const [kind, value] = [holes[next] ?? 'word', given[next]];
      next += 1;
      const inside = (value ?? holeText(kind)).replace(/^["']|["']$/g, '').replace(/[{}\\]/g, '');
      // With its turn before it: a number alone would be taken for the turn.
      const hole = `\${${next}:${inside}}`;
      return piece.quoted ? `"${hole}"` : hole;
    })
    .join('');
}

function holeText(kind: ValueKind): string {
  return isOwnKind(kind) ? kind.slice(1, -1) : HOLE_TEXT[kind];
}

const HOLE_TEXT = { string: 'text', int: '0', float: '0.0', word: 'value', placeholder: 'value' } as const;

function keywordOffers(at: CompletionContext, read: ReadFeature, start: number): CompletionResult | null {
  const typed = at.state.sliceDoc(start, at.pos);
  if (typed === '' && !at.explicit) return null;
  const language = languageOf(read);
  const found = keywordsOf(language).filter(({ text }) => text.toLowerCase().startsWith(typed.toLowerCase()) && text.trim().length > typed.length);
  return found.length === 0 ? null : { from: start, options: found.slice(0, MOST_OFFERED).map(({ text }, i) => ({ label: text.trim(), apply: text.endsWith(':') ? `${text} ` : text, boost: -i })), filter: false };
}
