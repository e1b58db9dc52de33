import type { ArtefactState, SharedId } from '../artefacts/index.ts';
import { parseParameterText, type Argument, type SharedUse, type StepId } from '../cases/index.ts';
import { EMPTY_CELL } from '../data/index.ts';
import type { SharedContent } from '../shared/index.ts';
import { holesOf, phraseKey, takenApart, type PhraseKey, type StepValue } from './phrase.ts';
import { canBeWordedAs } from './phrasebook.ts';

/** What a phrase says in full. */
export interface PhraseDetail {
  readonly shared: SharedId;
  /** For each value of the phrase, in their order, the name of the parameter that takes it; null: none does. */
  readonly takes: readonly (string | null)[];
}

/** The phrases of a project that have their detail. */
export type PhraseDetails = ReadonlyMap<PhraseKey, PhraseDetail>;

/** No phrase has its detail. */
export const NO_DETAILS: PhraseDetails = new Map();

/** Shared steps by what they say of phrases. */
export interface DetailingShared {
  readonly id: SharedId;
  readonly state: ArtefactState;
  readonly phrases: readonly { readonly phrase: string; readonly takes: readonly (string | null)[] }[];
}

/** Which shared steps are the detail of which phrase: of several, the first by number; withdrawn ones of none. */
export function phraseDetails(shared: readonly DetailingShared[]): PhraseDetails {
  const details = new Map<PhraseKey, PhraseDetail>();
  for (const { id, state, phrases } of shared.toSorted((a, b) => numberOf(a.id) - numberOf(b.id))) {
    if (state === 'withdrawn') continue;
    for (const { phrase, takes } of phrases) {
      const key = phraseKey(phrase);
      if (!details.has(key)) details.set(key, { shared: id, takes });
    }
  }
  return details;
}

function numberOf(id: SharedId): number {
  return Number(id.slice(2));
}

/**
 * The use of shared steps that a step stands for; null where its phrase has no detail. `columns`: the names that
 * examples give values to; what else stands between angle brackets is meant as it is written.
 */
export function detailOfStep(text: string, id: StepId, details: PhraseDetails, columns: ReadonlySet<string>): SharedUse | null {
  if (details.size === 0) return null;
  const { key, values } = takenApart(text);
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

/** Shared steps as the detail of one phrase more; its values are taken by their parameters in order. The very same where they are already. */
export function withPhraseDetailed(content: SharedContent, phrase: PhraseKey, id: string): SharedContent {
  if (content.phrases.some((p) => p.phrase === phrase)) return content;
  const values = Array.from({ length: holesOf(phrase) }, (_, i) => content.parameters[i]?.id ?? null);
  return { ...content, phrases: [...content.phrases, { id, phrase, values }] };
}

/** Shared steps with phrases worded as another one, whose detail they stay; values keep their places. The very same where none is. */
export function withDetailReworded(content: SharedContent, from: ReadonlySet<PhraseKey>, to: PhraseKey): SharedContent {
  const isMeant = (phrase: string): boolean => phrase !== to && from.has(phraseKey(phrase)) && canBeWordedAs(phraseKey(phrase), to);
  if (!content.phrases.some((p) => isMeant(p.phrase))) return content;
  const worded = content.phrases.map((p) => (isMeant(p.phrase) ? { ...p, phrase: to } : p));
  return { ...content, phrases: worded.filter((p, i) => worded.findIndex((q) => q.phrase === p.phrase) === i) };
}
