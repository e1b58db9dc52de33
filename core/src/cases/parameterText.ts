/** A text cut at its parameters. `from` and `to` are indexes into the source text. */
export type TextPart =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'parameter'; readonly name: string; readonly from: number; readonly to: number };

// Gherkin's notation. A name has at most 80 characters and starts with a letter or digit, so that "a < b and c > d" holds none; `\<` is a plain bracket.
const TOKEN = /\\<|<([\p{L}\p{N}](?:[^<>\n]{0,78}[^<>\s])?)>/gu;

/** Cuts a text into plain parts and parameters, in order. Escaped brackets come out as plain ones. */
export function parseParameterText(text: string): TextPart[] {
  const parts: TextPart[] = [];
  let plain = '';
  let at = 0;
  for (const match of text.matchAll(TOKEN)) {
    plain += text.slice(at, match.index);
    at = match.index + match[0].length;
    const name = match[1];
    if (name === undefined) {
      plain += '<';
      continue;
    }
    if (plain !== '') parts.push({ kind: 'text', text: plain });
    plain = '';
    parts.push({ kind: 'parameter', name, from: match.index, to: at });
  }
  plain += text.slice(at);
  if (plain !== '') parts.push({ kind: 'text', text: plain });
  return parts;
}

export function isParameterName(name: string): boolean {
  const parts = parseParameterText(`<${name}>`);
  return parts.length === 1 && parts[0]?.kind === 'parameter' && parts[0].name === name;
}

/** The names used in a text, each once, in order of first use. */
export function parametersIn(text: string): string[] {
  return [...new Set(parseParameterText(text).flatMap((p) => (p.kind === 'parameter' ? [p.name] : [])))];
}

/** The text with every use of one name replaced by another. */
export function renameInText(text: string, from: string, to: string): string {
  let renamed = '';
  let at = 0;
  for (const part of parseParameterText(text)) {
    if (part.kind !== 'parameter' || part.name !== from) continue;
    renamed += `${text.slice(at, part.from)}<${to}>`;
    at = part.to;
  }
  return at === 0 ? text : renamed + text.slice(at);
}
