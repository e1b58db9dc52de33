import type { CaseId } from '../artefacts/index.ts';
import { MISSING_CELL } from '../data/index.ts';
import { CLONED_PARTS, type ClonedPart } from './clonedPart.ts';
import { withCaseTexts } from './parameters.ts';
import { parseParameterText } from './parameterText.ts';
import { ALL_ROWS } from './rowChoice.ts';
import type { CaseContent } from './testCase.ts';

/** A word or words, and what stands in their place in a clone. */
export interface Replacement {
  readonly from: string;
  readonly to: string;
}

/**
 * A case written once more: with the parts that come along, and with words replaced in all texts, in cells, defaults
 * and names of rows. Names of parameters stay, so that nothing comes loose. It remembers where it comes from.
 */
export function cloneCase(origin: { readonly id: CaseId; readonly version: number }, content: CaseContent, parts: readonly ClonedPart[], replacements: readonly Replacement[]): CaseContent {
  const taken = CLONED_PARTS.reduce<CaseContent>((cut, part) => (parts.includes(part) ? cut : without(cut, part)), content);
  const replace = (text: string): string => replaced(text, replacements);
  const cell = (text: string): string => (text === MISSING_CELL ? text : replace(text));
  const told = withCaseTexts(taken, replace);
  return {
    ...told,
    title: replace(told.title),
    parameters: told.parameters.map((p) => ({ ...p, default: cell(p.default), description: replace(p.description) })),
    rows: told.rows.map((row) => ({ ...row, name: replace(row.name), cells: Object.fromEntries(Object.entries(row.cells).map(([id, text]) => [id, cell(text)])) })),
    origin,
  };
}

function without(content: CaseContent, part: ClonedPart): CaseContent {
  if (part === 'rows') return { ...content, rows: [], data: null, runs: ALL_ROWS };
  return part === 'owner' ? { ...content, owner: '' } : { ...content, [part]: [] };
}

/** A text with words replaced outside the names of parameters; whole words only, and a capital stays a capital. */
export function replaced(text: string, replacements: readonly Replacement[]): string {
  const wanted = replacements.filter((r) => r.from !== '');
  if (wanted.length === 0) return text;
  const byWords = new Map(wanted.toReversed().map((r) => [r.from.toLowerCase(), r.to]));
  // All at once: what one puts in is not replaced by the next. The longer of two that begin alike first.
  const any = wanted.map((r) => r.from).sort((a, b) => b.length - a.length).map((from) => from.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)).join('|');
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])(?:${any})(?![\\p{L}\\p{N}])`, 'giu');
  const inPlain = (plain: string): string => plain.replaceAll(pattern, (found) => likeCapital(found, byWords.get(found.toLowerCase()) ?? found));
  let result = '';
  let at = 0;
  for (const part of parseParameterText(text)) {
    if (part.kind !== 'parameter') continue;
    result += inPlain(text.slice(at, part.from)) + text.slice(part.from, part.to);
    at = part.to;
  }
  return result + inPlain(text.slice(at));
}

function likeCapital(found: string, to: string): string {
  const [first = ''] = found;
  return first !== first.toLowerCase() && first === first.toUpperCase() ? to.charAt(0).toUpperCase() + to.slice(1) : to;
}
