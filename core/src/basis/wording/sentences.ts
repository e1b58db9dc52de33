/** A sentence of a Markdown text. `plain` is as long as the source's stretch: signs and code are blanked out, not cut. */
export interface Sentence {
  readonly start: number;
  readonly plain: string;
  /** A heading or a cell of a table: rules about whole sentences do not apply. */
  readonly fragment: boolean;
}

/** What stands for code and addresses: no letter, so that no rule looks into it, and no space, so that it stays a word. */
const BLANK = '\u25AA';

const FENCE = /^[ \t]*(```|~~~)[^\n]*\n[\s\S]*?(?:^[ \t]*\1[ \t]*$|(?![\s\S]))/gm;
const CODE_SPAN = /(?<!`)(`+)(?!`)[^\n]*?[^`\n]\1(?!`)/g;
const ADDRESS = /\]\([^)\n]*\)|<?https?:\/\/[^\s>)]+>?/g;
const SIGNS = /\*\*|__|\*(?=\S)|(?<=\S)\*|^[ \t]*(?:>[ \t]?)+|[[\]]/gm;

const ABBREVIATION = /(?:\b(?:e\.g|i\.e|approx|no|vs|cf|fig|sec|incl|max|min|resp|dr|mr|mrs|st)|\betc(?=\.\s+[a-z]))\.$/i;

/** What lies beyond on one line, or in one sentence, is not looked at: patterns may take the square of a length. */
const LONGEST_LINE = 6_000;
const LONGEST_SENTENCE = 1_200;

/** The sentences of a Markdown text in reading order; code blocks hold none. */
export function sentencesOf(text: string): Sentence[] {
  const plain = plainText(text.replaceAll(/[^\n]+/g, (line) => line.slice(0, LONGEST_LINE).padEnd(line.length)));
  return blocksOf(plain).flatMap(({ start, end, fragment }) => splitSentences(plain.slice(start, end), start, fragment));
}

/** Folded white space: what tells one sentence from another. */
export function sentenceText(plain: string): string {
  return plain.replaceAll(/\s+/g, ' ').trim();
}

function plainText(text: string): string {
  const blank = (match: string): string => match.replaceAll(/[^\n]/g, BLANK);
  const spaces = (match: string): string => ' '.repeat(match.length);
  return text
    .replaceAll(FENCE, (match) => match.replaceAll(/[^\n]/g, ' '))
    .replaceAll(CODE_SPAN, blank)
    .replaceAll(ADDRESS, (match) => (match.startsWith(']') ? spaces(match) : blank(match)))
    .replaceAll(SIGNS, spaces);
}

interface Block {
  readonly start: number;
  readonly end: number;
  readonly fragment: boolean;
}

/** Paragraphs, list items, headings and cells. Lines of one paragraph belong together. */
function blocksOf(plain: string): Block[] {
  const blocks: Block[] = [];
  let open: { start: number; end: number } | null = null;
  const close = (): void => {
    if (open !== null) blocks.push({ ...open, fragment: false });
    open = null;
  };
  for (const match of plain.matchAll(/[^\n]+|\n/g)) {
    const line = match[0];
    const { index } = match;
    if (line === '\n') continue;
    const end = index + line.length;
    if (line.trim() === '') close();
    else if (/^\s*#{1,6}\s/.test(line)) {
      close();
      blocks.push({ start: index + line.search(/[^#\s]|$/), end, fragment: true });
    } else if (/^\s*\|/.test(line)) {
      close();
      blocks.push(...cellsOf(line, index));
    } else {
      const item = /^\s*(?:[-+•]|\d+[.)])\s+/.exec(line);
      if (item !== null) close();
      const start = index + (item?.[0].length ?? 0);
      // A blank line between paragraphs is two line breaks in a row, which the pattern hands out one by one.
      if (open !== null && plain.slice(open.end, index).includes('\n\n')) close();
      open = { start: (open as { start: number } | null)?.start ?? start, end };
    }
  }
  close();
  return blocks;
}

function cellsOf(line: string, start: number): Block[] {
  return [...line.matchAll(/[^|]+/g)]
    .filter(([cell]) => /[\p{L}\d]/u.test(cell))
    .map((cell) => ({ start: start + cell.index, end: start + cell.index + cell[0].length, fragment: true }));
}

function splitSentences(block: string, offset: number, fragment: boolean): Sentence[] {
  const sentences: Sentence[] = [];
  let from = 0;
  for (const end of block.matchAll(/[.!?]+["”’)]*(?=\s+[\p{Lu}\d"“(‘]|\s*$)/gu)) {
    const to = end.index + end[0].length;
    if (ABBREVIATION.test(block.slice(from, end.index + 1)) && to < block.trimEnd().length) continue;
    sentences.push(...sentence(block, from, to, offset, fragment));
    from = to;
  }
  sentences.push(...sentence(block, from, block.length, offset, fragment));
  return sentences;
}

function sentence(block: string, from: number, to: number, offset: number, fragment: boolean): Sentence[] {
  const text = block.slice(from, to);
  const lead = text.search(/\S/);
  return lead < 0 || !/[\p{L}\d]/u.test(text) ? [] : [{ start: offset + from + lead, plain: text.slice(lead, lead + LONGEST_SENTENCE).trimEnd(), fragment }];
}
