import type { ArtefactState, SharedId } from '../artefacts/index.ts';
import { parseParameterText, type Argument, type SharedUse, type StepId } from '../cases/index.ts';
import { EMPTY_CELL } from '../data/index.ts';
import type { SharedContent } from '../shared/index.ts';
import { NO_OWN_KINDS, type OwnKinds } from './ownKinds.ts';
import { holesOf, keyUnder, takenApart, type StepValue } from './phrase.ts';
import { phraseKey, type PhraseKey } from './phraseKey.ts';
import { canBeWordedAs } from './phrasebook.ts';

/** What a phrase says in full. */
export interface PhraseDetail {
  readonly shared: SharedId;
  /** For each value of the phrase, in their order, the name of the parameter that takes it; null: none does. */
  readonly takes: readonly (string | null)[];
}

/** The phrases of a project that have their detail. */
export type PhraseDetails = ReadonlyMap<PhraseKey, PhraseDetail>;

/** How steps of a project are understood: which values they have, and what their phrases say in full. */
export interface Wording {
  readonly own: OwnKinds;
  readonly details: PhraseDetails;
}

/** Of a project without kinds of its own and phrases said in full. */
export const PLAIN_WORDING: Wording = { own: NO_OWN_KINDS, details: new Map() };

/** Shared steps by what they say of phrases. */
export interface DetailingShared {
  readonly id: SharedId;
  readonly state: ArtefactState;
  readonly phrases: readonly { readonly phrase: string; readonly takes: readonly (string | null)[] }[];
}

/** Which shared steps are the detail of which phrase: of several, the first by number; withdrawn ones of none. */
export function phraseDetails(shared: readonly DetailingShared[], own: OwnKinds = NO_OWN_KINDS): PhraseDetails {
  const details = new Map<PhraseKey, PhraseDetail>();
  for (const { id, state, phrases } of shared.toSorted((a, b) => numberOf(a.id) - numberOf(b.id))) {
    if (state === 'withdrawn') continue;
    for (const { phrase, takes } of phrases) {
      const { key, given } = asSaidNow(phrase, takes, own);
      if (!details.has(key)) details.set(key, { shared: id, takes: given });
    }
  }
  return details;
}

/** A kept phrase as steps say it under the own kinds of now, with what it gives each of its values. */
function asSaidNow<T>(phrase: string, given: readonly (T | null)[], own: OwnKinds): { readonly key: PhraseKey; readonly given: (T | null)[] } {
  const { key, was } = keyUnder(phraseKey(phrase), own);
  return { key, given: was.map((i) => (i === null ? null : (given[i] ?? null))) };
}

function numberOf(id: SharedId): number {
  return Number(id.slice(2));
}

/**
 * The use of shared steps that a step stands for; null where its phrase has no detail. `columns`: the names that
 * examples give values to; what else stands between angle brackets is meant as it is written.
 */
export function detailOfStep(text: string, id: StepId, { own, details }: Wording, columns: ReadonlySet<string>): SharedUse | null {
  if (details.size === 0) return null;
  const { key, values } = takenApart(text, own);
  const detail = details.get(key);
  if (detail === undefined) return null;
  const given = values.flatMap((value, i): Argument[] => {
    const name = detail.takes[i] ?? null;
    return name === null ? [] : [{ id: name, value: argumentOf(value, columns) }];
  });
  return { kind: 'shared', id, shared: detail.shared, pinned: null, arguments: [...new Map(given.map((a) => [a.id, a])).values()] };
}

/** A value as an argument has it: without the quotation marks of Gherkin, and nothing between them is an empty text. */
function argumentOf({ kind, text }: StepValue, columns: ReadonlySet<string>): string {
  const plain = kind === 'string' ? text.slice(1, -1) : text;
  return plain === '' ? EMPTY_CELL : meantText(plain, columns);
}

/** A text of a feature in our notation: what examples give values to are parameters, all else between angle brackets is as it is written. */
export function meantText(text: string, columns: ReadonlySet<string>): string {
  return parseParameterText(text)
    .map((part) => (part.kind === 'text' ? part.text.replaceAll('<', '\\<') : columns.has(part.name) ? `<${part.name}>` : `\\<${part.name}>`))
    .join('');
}

/** What shared steps say of phrases, with the names of the parameters that take the values. */
export function phrasesDetailed({ phrases, parameters }: Pick<SharedContent, 'phrases' | 'parameters'>): DetailingShared['phrases'] {
  const names = new Map(parameters.map((p) => [p.id, p.name]));
  return phrases.map(({ phrase, values }) => ({ phrase, takes: values.map((id) => (id === null ? null : (names.get(id) ?? null))) }));
}

/** Shared steps as the detail of one phrase more; its values are taken by their parameters in order. The very same where they are already, and the phrase is kept as steps say it now. */
export function withPhraseDetailed(content: SharedContent, phrase: PhraseKey, id: string, own: OwnKinds = NO_OWN_KINDS): SharedContent {
  const kept = content.phrases.find((p) => asSaidNow(p.phrase, p.values, own).key === phrase);
  if (kept?.phrase === phrase) return content;
  if (kept !== undefined) return { ...content, phrases: content.phrases.map((p) => (p === kept ? { ...p, phrase, values: asSaidNow(p.phrase, p.values, own).given } : p)) };
  const values = Array.from({ length: holesOf(phrase) }, (_, i) => content.parameters[i]?.id ?? null);
  return { ...content, phrases: [...content.phrases, { id, phrase, values }] };
}

/** Shared steps that say a phrase in full no longer. */
export function withoutPhraseDetailed(content: SharedContent, phrase: PhraseKey, own: OwnKinds = NO_OWN_KINDS): SharedContent {
  return { ...content, phrases: content.phrases.filter((p) => asSaidNow(p.phrase, p.values, own).key !== phrase) };
}

/** Shared steps with phrases worded as another one, whose detail they stay; values keep their places. The very same where none is. */
export function withDetailReworded(content: SharedContent, from: ReadonlySet<PhraseKey>, to: PhraseKey, own: OwnKinds = NO_OWN_KINDS): SharedContent {
  const worded = content.phrases.map((p) => {
    const { key, given } = asSaidNow(p.phrase, p.values, own);
    return key === to || !from.has(key) || !canBeWordedAs(key, to) ? p : { ...p, phrase: to, values: given };
  });
  if (worded.every((p, i) => p === content.phrases[i])) return content;
  return { ...content, phrases: worded.filter((p, i) => worded.findIndex((q) => q.phrase === p.phrase) === i) };
}
