import { anchorAt, placeAnchor, type Anchor } from '../conditions/index.ts';
import { isElementList, isRecord, type Json } from '../versions/index.ts';

/** Where in a content a remark stands. */
export interface RemarkPlace {
  /** Names of fields and ids of elements with slashes between them, as in `steps/s3/expected`; empty: the artefact as a whole. */
  readonly path: string;
  /** Words of the text at the path; null: all that stands there. */
  readonly words: Anchor | null;
}

/** An artefact as a whole. */
export const WHOLE: RemarkPlace = { path: '', words: null };

/** Where a place is in a content by now. */
export type PlaceNow =
  | { readonly kind: 'whole' }
  /** `words`: null: all of it; `gone`: the place is there, the words are not. */
  | { readonly kind: 'there'; readonly words: { readonly start: number; readonly end: number } | 'gone' | null }
  | { readonly kind: 'gone' };

/** What stands at a path of a content; undefined: nothing does. */
export function valueAt(content: Json, path: string): Json | undefined {
  if (path === '') return content;
  return path.split('/').reduce<Json | undefined>((value, part) => (isElementList(value) ? value.find((e) => e.id === part) : isRecord(value) ? value[part] : undefined), content);
}

/** A place on words of a text; on all of it where no words are chosen. */
export function placeOn(content: Json, path: string, chosen: { readonly start: number; readonly end: number } | null): RemarkPlace {
  const text = valueAt(content, path);
  const isChosen = typeof text === 'string' && chosen !== null && chosen.end > chosen.start && chosen.end <= text.length;
  return { path, words: isChosen ? anchorAt(text, chosen.start, chosen.end) : null };
}

/** Where a place is by now: elements are found by their ids wherever they were moved, words by what stood around them. */
export function placeNow(content: Json, { path, words }: RemarkPlace): PlaceNow {
  if (path === '') return { kind: 'whole' };
  const value = valueAt(content, path);
  if (value === undefined) return isEmptyCell(content, path) ? { kind: 'there', words: words === null ? null : 'gone' } : { kind: 'gone' };
  if (words === null) return { kind: 'there', words: null };
  const found = typeof value === 'string' ? placeAnchor(value, words) : ({ kind: 'gone' } as const);
  return { kind: 'there', words: found.kind === 'gone' ? 'gone' : { start: found.start, end: found.end } };
}

/** An empty cell of a row is not written down: it is there as long as its row and its column are. */
function isEmptyCell(content: Json, path: string): boolean {
  const [, row, column] = /^(rows\/[^/]+)\/cells\/([^/]+)$/.exec(path) ?? [];
  return row !== undefined && valueAt(content, row) !== undefined && valueAt(content, `parameters/${column}`) !== undefined;
}

/** Letters of what stood at a place that are remembered. */
const MOST_SAID = 300;

/** What stands at a place, to be shown when it is no longer there. */
export function saidAt(content: Json, { path, words }: RemarkPlace): string {
  if (words !== null) return words.quote.slice(0, MOST_SAID).toWellFormed();
  return path === '' ? '' : textsIn(valueAt(content, path)).join(' · ').slice(0, MOST_SAID).toWellFormed();
}

/** Fields of an element that say what it is, in the order one reads them. */
const SAYING = ['name', 'title', 'text', 'action', 'expected'];

function textsIn(value: Json | undefined): string[] {
  if (typeof value === 'string') return value.trim() === '' ? [] : [value.trim()];
  return isRecord(value) ? SAYING.flatMap((field) => textsIn(value[field])) : [];
}

/** Puts places in the order in which one reads a content: the whole first, what is gone last. */
export function byPlace(content: Json): (a: RemarkPlace, b: RemarkPlace) => number {
  return (a, b) => {
    const [x, y] = [turnsOf(content, a), turnsOf(content, b)];
    for (let i = 0; i < Math.max(x.length, y.length); i += 1) {
      const by = (x[i] ?? -1) - (y[i] ?? -1);
      if (by !== 0) return by;
    }
    return 0;
  };
}

function turnsOf(content: Json, place: RemarkPlace): number[] {
  const now = placeNow(content, place);
  if (now.kind === 'whole') return [];
  if (now.kind === 'gone') return [Number.MAX_SAFE_INTEGER];
  let here: Json | undefined = content;
  const turns = place.path.split('/').map((part) => {
    const [list, record]: [Json | undefined, Json | undefined] = [here, here];
    if (isElementList(list)) {
      here = list.find((e) => e.id === part);
      return list.findIndex((e) => e.id === part);
    }
    here = isRecord(record) ? record[part] : undefined;
    return isRecord(record) ? Object.keys(record).indexOf(part) : 0;
  });
  return [...turns, now.words === null || now.words === 'gone' ? -1 : now.words.start];
}
