import type { KindAndContent } from '../kinds/index.ts';
import { NO_OWN_TEXTS, withTexts, type OwnTexts, type TextPart, type TextPlace } from './places.ts';
import { replacedIn, type Finder, type Match } from './search.ts';

/** A text in which something was found. */
export interface FoundPlace extends TextPlace {
  readonly matches: readonly Match[];
}

/** The texts of an artefact in which something is found, in the order of its page. */
export function placesFound(value: KindAndContent, find: Finder, parts: ReadonlySet<TextPart>, own = NO_OWN_TEXTS): FoundPlace[] {
  const found: FoundPlace[] = [];
  withTexts(value, ({ path, part, text }) => {
    const matches = text !== '' && parts.has(part) ? find(text) : [];
    if (matches.length > 0) found.push({ path, part, text, matches });
    return text;
  }, own);
  return found;
}

/** What is replaced where. */
export interface Replacing {
  readonly find: Finder;
  readonly parts: ReadonlySet<TextPart>;
  readonly own: OwnTexts;
}

/** The artefact with all matches replaced but those at places named; the very same when nothing was found elsewhere. */
export function withReplaced(value: KindAndContent, { find, parts, own }: Replacing, without: ReadonlySet<string>): KindAndContent {
  return withTexts(value, ({ path, part, text }) => (parts.has(part) && !without.has(path) ? replacedIn(text, find(text)) : text), own);
}
