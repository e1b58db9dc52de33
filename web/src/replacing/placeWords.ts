import type { PlaceName, TextPart } from '@caderno/core/replacing';

/** What the parts of artefacts are called that can be looked through. */
export const PART_WORD: Record<TextPart, string> = { title: 'titles', text: 'texts, objectives, preconditions', steps: 'steps', expected: 'expected results', data: 'data and given values', fields: 'fields of the project’s own' };

const FIELD_WORD: Readonly<Record<string, string>> = { title: 'Title', text: 'Text', answer: 'Answer', objective: 'Objective', areas: 'Areas', ideas: 'Ideas', preconditions: 'Preconditions', purpose: 'Purpose' };

/** Where a text stands, as one says it. */
export function placeWords(name: PlaceName): string {
  switch (name.kind) {
    case 'field':
      return FIELD_WORD[name.field] ?? name.field;
    case 'own':
      return name.field;
    case 'step':
      return `Step ${name.number}${name.field === 'expected' ? ', expected' : ''}`;
    case 'argument':
      return `Step ${name.number}, <${name.parameter}>`;
    case 'row':
      return `${rowWords(name)}, ${name.field === 'name' ? 'name' : 'what for'}`;
    case 'cell':
      return `${rowWords(name)}, <${name.column}>`;
  }
}

function rowWords({ row, number }: { readonly row: string; readonly number: number }): string {
  return row === '' ? `Row ${number}` : `Row “${row}”`;
}

/** A piece of a text around what was found: as it is, taken out, or put in. */
export interface Piece {
  readonly kind: 'same' | 'out' | 'in';
  readonly text: string;
}

/** Letters that are shown beside a match. */
const AROUND = 48;

/** A text with its changes; long stretches between them are cut. */
export function piecesOf(text: string, matches: readonly { readonly at: number; readonly length: number; readonly replacement: string }[]): Piece[] {
  const pieces: Piece[] = [];
  let from = 0;
  for (const [i, { at, length, replacement }] of matches.entries()) {
    pieces.push({ kind: 'same', text: shortened(text.slice(from, at), i > 0, true) }, { kind: 'out', text: text.slice(at, at + length) }, { kind: 'in', text: replacement });
    from = at + length;
  }
  pieces.push({ kind: 'same', text: shortened(text.slice(from), true, false) });
  return pieces.filter((piece) => piece.text !== '');
}

/** What stands before, between or behind matches, as much as helps to know the place. */
function shortened(text: string, isBehind: boolean, isBefore: boolean): string {
  const most = (isBehind ? AROUND : 0) + (isBefore ? AROUND : 0);
  if (text.length <= most + 8) return text;
  const [begin, end] = [isBehind ? text.slice(0, AROUND).toWellFormed().replace(/\s\S{0,20}$/, '') : '', isBefore ? text.slice(-AROUND).toWellFormed().replace(/^\S{0,20}\s/, '') : ''];
  return `${begin} … ${end}`;
}
