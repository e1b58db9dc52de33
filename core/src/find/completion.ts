import type { OwnField } from '../fields/index.ts';
import { fieldNamed, type QueryField } from './query.ts';
import { tokensOf } from './tokens.ts';

/** What is being written at a place of a query: the letters from `from` to `to` are to become a field, or a value of one. */
export interface QueryPart {
  readonly from: number;
  readonly to: number;
  /** Null: a field or words. */
  readonly field: QueryField | OwnField | null;
  readonly typed: string;
}

/** What is being written where the caret stands; null in a phrase, a number or a value of no field. */
export function partAt(text: string, caret: number, own: readonly OwnField[]): QueryPart | null {
  const token = tokensOf(text).find((t) => t.at < caret && caret <= t.at + t.length);
  if (token === undefined) return { from: caret, to: caret, field: null, typed: '' };
  const to = token.at + token.length;
  if (token.kind === 'words') {
    const from = token.at + (token.not ? 1 : 0);
    return text[from] === '"' ? null : { from, to, field: null, typed: text.slice(from, caret) };
  }
  if (token.kind === 'open') return { from: caret, to: caret, field: null, typed: '' };
  if (token.kind !== 'field' || caret < token.valueAt || token.is !== '=') return null;
  const field = fieldNamed(token.field, own);
  return field === null ? null : { from: token.valueAt, to, field, typed: text.slice(token.valueAt, caret).replace(/^"/, '') };
}

/** The text with a part completed, and where the caret stands then: behind a field's colon, or behind a value and a space. */
export function completed(text: string, part: QueryPart, chosen: string): { readonly text: string; readonly caret: number } {
  const written = part.field === null ? `${chosen}:` : `${/[\s()"]/.test(chosen) ? `"${chosen.replaceAll('"', '')}"` : chosen}`;
  const after = text.slice(part.to);
  const gap = part.field === null || after.startsWith(' ') ? '' : ' ';
  return { text: text.slice(0, part.from) + written + gap + after, caret: part.from + written.length + (part.field === null ? 0 : 1) };
}
