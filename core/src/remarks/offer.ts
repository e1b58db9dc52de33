import { isRecord, type Json } from '../versions/index.ts';
import { placeNow, valueAt, type RemarkPlace } from './remarkPlace.ts';

/** Where texts stand that people write: those in which words can be replaced as well. */
const TEXTS = [/^(title|text|answer|objective|areas|ideas|preconditions|purpose)$/, /^steps\/[^/]+\/(action|expected|arguments\/[^/]+\/value)$/, /^rows\/[^/]+\/(name|description|cells\/[^/]+)$/, /^parts\/[^/]+\/lines\/[^/]+\/text$/];

/** What stands at a place of a content by now, where something else can be offered for it; null: it is gone, or no text that people write. */
export function offeredOn(content: Json, place: RemarkPlace): string | null {
  const found = textAt(content, place);
  return found === null ? null : found.text.slice(found.start, found.end);
}

/** The content with what is offered in place of that; null where {@link offeredOn} is. */
export function withOffer(content: Json, place: RemarkPlace, offer: string): Json | null {
  const found = textAt(content, place);
  return found === null ? null : withValueAt(content, place.path.split('/'), found.text.slice(0, found.start) + offer + found.text.slice(found.end));
}

function textAt(content: Json, place: RemarkPlace): { readonly text: string; readonly start: number; readonly end: number } | null {
  const text = valueAt(content, place.path);
  const now = placeNow(content, place);
  if (typeof text !== 'string' || now.kind !== 'there' || now.words === 'gone' || !TEXTS.some((at) => at.test(place.path))) return null;
  // The title of a feature stands in its first lines.
  if (place.path === 'title' && isRecord(content) && 'parts' in content) return null;
  return { text, ...(now.words ?? { start: 0, end: text.length }) };
}

/** The path leads somewhere. */
function withValueAt(content: Json, [name = '', ...rest]: readonly string[], value: Json): Json {
  const next = (inner: Json | undefined): Json => (rest.length === 0 || inner === undefined ? value : withValueAt(inner, rest, value));
  if (Array.isArray(content)) return content.map((element: Json) => (isRecord(element) && element.id === name ? next(element) : element));
  return isRecord(content) ? { ...content, [name]: next(content[name]) } : content;
}
