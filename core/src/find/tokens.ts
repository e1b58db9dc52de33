export type Comparison = '<' | '<=' | '=' | '>=' | '>';

/** Where a token stands in the text. */
interface Place {
  readonly at: number;
  readonly length: number;
}

/** `isOpen`: its quote was never closed. */
export interface FieldToken extends Place {
  readonly kind: 'field';
  readonly not: boolean;
  readonly field: string;
  /** A colon asks for the same. */
  readonly is: Comparison;
  readonly value: string;
  /** Where the value begins. */
  readonly valueAt: number;
  readonly isOpen: boolean;
}

export type Token =
  | (Place & { readonly kind: 'open'; readonly not: boolean })
  | (Place & { readonly kind: 'close' })
  | (Place & { readonly kind: 'or' })
  | (Place & { readonly kind: 'words'; readonly not: boolean; readonly words: string; readonly isOpen: boolean })
  | FieldToken;

/** One token after spaces: a bracket; a field with what it is compared to; words, of which quotes make one. */
const TOKEN = /\s*(?:(?<open>-?\()|(?<close>\))|(?<dash>-?)(?:(?<field>\p{L}[\p{L}\p{M}\p{N}._-]*)(?<is><=|>=|[:<>=]))?(?:"(?<quoted>[^"]*)(?<end>"?)|(?<bare>[^\s()"]*)))/uy;

/** The tokens of a query, in their order. Every text has some reading. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.length) {
    const from = TOKEN.lastIndex;
    const match = TOKEN.exec(text);
    if (match === null || match[0].length === 0) {
      // A lone quote at the end, say: nothing that could be asked for.
      TOKEN.lastIndex = from + 1;
      continue;
    }
    const length = match[0].trimStart().length;
    if (length > 0) tokens.push(tokenOf(match.groups ?? {}, { at: from + match[0].length - length, length }));
  }
  return tokens;
}

function tokenOf(groups: Readonly<Record<string, string | undefined>>, place: Place): Token {
  if (groups.open !== undefined) return { kind: 'open', not: groups.open.startsWith('-'), ...place };
  if (groups.close !== undefined) return { kind: 'close', ...place };
  const not = groups.dash === '-';
  const isOpen = groups.quoted !== undefined && groups.end === '';
  const value = groups.quoted ?? groups.bare ?? '';
  if (groups.field === undefined) return groups.quoted === undefined && !not && value.toLowerCase() === 'or' ? { kind: 'or', ...place } : { kind: 'words', not, words: value, isOpen, ...place };
  const valueAt = place.at + (not ? 1 : 0) + groups.field.length + (groups.is?.length ?? 0);
  return { kind: 'field', not, field: groups.field, is: comparisonOf(groups.is), value, valueAt, isOpen, ...place };
}

function comparisonOf(sign: string | undefined): Comparison {
  return sign === '<' || sign === '<=' || sign === '>=' || sign === '>' ? sign : '=';
}
