import { isCurrency } from './currencies.ts';
import type { Finding } from './rule.ts';

/** A term of the project's glossary. */
export interface Term {
  readonly id: string;
  readonly term: string;
  /** Other spellings and forms: plurals, abbreviations. */
  readonly forms: readonly string[];
  readonly definition: string;
}

/** Where a term stands in a text. */
export interface TermPlace {
  readonly term: Term;
  readonly start: number;
  readonly end: number;
}

/** Written in capitals and known to everyone who reads requirements. */
const COMMON = new Set(
  'API APIS CSV CPU GPS GUI HTML HTTP HTTPS ID IDS ISO IEC IEEE IP JSON OK PC PDF PIN PNG SMS SQL SVG TCP TLS UI UK URL URLS US USB UTC UTF XML XLSX ZIP AM PM VAT GET POST PUT PATCH DELETE HEAD OPTIONS KB MB GB TB KW MW GW VA DPI RPM AND OR NOT NULL TBD TBC TBA TODO FIXME XXX'.split(' '),
);

const NAMES_OF_DAYS = /^(?:Christmas|Easter|New Year|(?:Mon|Tues?|Wed(?:nes)?|Thu(?:rs?)?|Fri|Sat(?:ur)?|Sun)(?:days?)?|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec|January|February|March|April|May|June|July|August|September|October|November|December|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|I|English|Portuguese|Spanish|French|German|Italian|Latin|Unicode|Gherkin|Markdown|Excel)$/;

const ACRONYM = /(?<![\p{L}\d_-])\p{Lu}{2,8}s?(?![\p{L}\d_-])/gu;
/** After a colon or the sign of a list, “b)”, a clause begins. A word before a number or a single letter names a place in a document or a list: “Annex B”, “Articles 3”. */
const CAPITALISED = /(?<=(?:[\p{Ll}\d,;’]|(?<!\b[\p{L}\d])\))\s+(?:the\s+|a\s+|an\s+)?)\p{Lu}\p{Ll}{2,}(?:\s+\p{Lu}\p{Ll}{2,})*(?![\p{L}]|\.?\s+(?:\d|\p{Lu}\b))/gu;

/** Abbreviations and capitalised words within a sentence that the glossary does not explain. */
export function unknownTerms(plain: string, glossary: Glossary): Finding[] {
  const acronyms = [...plain.matchAll(ACRONYM)].filter(([word]) => !COMMON.has(word.replace(/s$/, '').toUpperCase()) && !COMMON.has(word) && !isCurrency(word));
  const capitalised = [...plain.matchAll(CAPITALISED)].filter(([words]) => !NAMES_OF_DAYS.test(words));
  return [...acronyms, ...capitalised]
    .filter(([words]) => !glossary.explains(words))
    .map(({ 0: words, index }) => ({ rule: 'unknownTerm', at: index, length: words.length }));
}

/** A glossary made ready to look terms up in texts. */
export class Glossary {
  readonly #byForm = new Map<string, Term>();
  readonly #pattern: RegExp | null;

  constructor(terms: readonly Term[]) {
    for (const term of terms) for (const form of [term.term, ...term.forms]) if (form.trim() !== '') this.#byForm.set(form.trim().toLowerCase(), term);
    // Longest first, so that “meter number” is not read as “meter”.
    const forms = [...this.#byForm.keys()].sort((a, b) => b.length - a.length).map(escaped);
    this.#pattern = forms.length === 0 ? null : new RegExp(`(?<![\\p{L}\\d_])(?:${forms.join('|')})(?![\\p{L}\\d_])`, 'giu');
  }

  /** Whether every part of an expression belongs to a term. */
  explains(words: string): boolean {
    const left = this.placesIn(words).reduce((text, { start, end }) => text.slice(0, start) + ' '.repeat(end - start) + text.slice(end), words);
    return left.trim() === '' || (this.#byForm.has(words.toLowerCase()) || this.#byForm.has(words.replace(/s$/, '').toLowerCase()));
  }

  /** Every term in a text, in reading order; of overlapping ones the longest. */
  placesIn(text: string): TermPlace[] {
    if (this.#pattern === null) return [];
    return [...text.matchAll(this.#pattern)].flatMap(({ 0: words, index }) => {
      const term = this.#byForm.get(words.toLowerCase());
      return term === undefined ? [] : [{ term, start: index, end: index + words.length }];
    });
  }
}

function escaped(text: string): string {
  return text.replaceAll(/[.*+?^${}()|[\]\\/]/g, String.raw`\$&`).replaceAll(/\s+/g, String.raw`\s+`);
}
