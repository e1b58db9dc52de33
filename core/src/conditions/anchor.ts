/** Words of a requirement's text that a condition hangs on: the words, where they stood, and what stood around them. */
export interface Anchor {
  readonly quote: string;
  /** Index into the Markdown source, in UTF-16 units. */
  readonly start: number;
  readonly before: string;
  readonly after: string;
}

/** Where an anchor's words stand now. */
export type AnchorPlace = { readonly kind: 'found'; readonly start: number; readonly end: number } | { readonly kind: 'gone' };

/** How much of the surroundings is remembered on each side. */
const CONTEXT = 32;

/** An anchor on `text.slice(start, end)`. */
export function anchorAt(text: string, start: number, end: number): Anchor {
  return {
    quote: text.slice(start, end),
    start,
    before: text.slice(Math.max(0, start - CONTEXT), start),
    after: text.slice(end, end + CONTEXT),
  };
}

/**
 * Finds an anchor's words in a later text: the occurrence whose surroundings agree most with the remembered ones,
 * the nearest to the old place among equals. Gone when the words no longer occur.
 * Gotcha: when the anchored occurrence is deleted and the same words stand elsewhere, that place is found instead.
 */
export function placeAnchor(text: string, anchor: Anchor): AnchorPlace {
  if (anchor.quote === '') return { kind: 'gone' };
  let best: { start: number; agreement: number } | null = null;
  for (let start = text.indexOf(anchor.quote); start >= 0; start = text.indexOf(anchor.quote, start + 1)) {
    const agreement = contextAgreement(text, start, anchor);
    const nearer = best !== null && Math.abs(start - anchor.start) < Math.abs(best.start - anchor.start);
    if (best === null || agreement > best.agreement || (agreement === best.agreement && nearer)) best = { start, agreement };
  }
  return best === null ? { kind: 'gone' } : { kind: 'found', start: best.start, end: best.start + anchor.quote.length };
}

function contextAgreement(text: string, start: number, anchor: Anchor): number {
  const end = start + anchor.quote.length;
  let before = 0;
  while (before < anchor.before.length && text[start - 1 - before] === anchor.before[anchor.before.length - 1 - before]) before += 1;
  let after = 0;
  while (after < anchor.after.length && text[end + after] === anchor.after[after]) after += 1;
  return before + after;
}

/** The anchor as it stands in another text that holds its words; the same anchor when they are not there. */
export function anchorIn(text: string, anchor: Anchor): Anchor {
  const place = placeAnchor(text, anchor);
  return place.kind === 'gone' ? anchor : anchorAt(text, place.start, place.end);
}
