import { AstBuilder, Errors, GherkinClassicTokenMatcher, Parser } from '@cucumber/gherkin';
import type IToken from '@cucumber/gherkin/dist/IToken.js';
import { RuleType, TokenType } from '@cucumber/gherkin/dist/Parser.js';
import { StepKeywordType } from '@cucumber/messages';

/** What a line of a feature file is. `unread`: something that may not stand where it stands. */
export type LineRole =
  | 'blank'
  | 'comment'
  | 'language'
  | 'tags'
  | 'feature'
  | 'rule'
  | 'background'
  | 'scenario'
  | 'examples'
  | 'step'
  | 'docStringEdge'
  | 'docString'
  | 'tableRow'
  | 'description'
  | 'unread';

/** What a step says it is; `other`: `*`, or a keyword that the language uses for more than one. */
export type StepKind = 'given' | 'when' | 'then' | 'and' | 'other';

/** A cell or a tag, as it is meant: escapes are resolved. Columns count from 1, as editors show them. */
export interface LineItem {
  readonly column: number;
  readonly text: string;
}

/** A line of a feature file as the parser took it. */
export interface ReadLine {
  readonly role: LineRole;
  /** As it is written, without the colon; empty where there is none. */
  readonly keyword: string;
  /** What follows the keyword; of a doc string and a description the line itself. */
  readonly text: string;
  readonly stepKind: StepKind;
  /** Tags of a line of tags, cells of a row. */
  readonly items: readonly LineItem[];
}

/** Why a line is not good Gherkin. */
export type FeatureProblemCode = 'unexpected_line' | 'unexpected_end' | 'unknown_language' | 'space_in_tag' | 'uneven_table' | 'not_read_further';

/** Lines and columns count from 1. */
export interface FeatureProblem {
  readonly code: FeatureProblemCode;
  readonly line: number;
  readonly column: number;
  /** What stands there. */
  readonly found: string;
}

/** A feature file, line by line, with what is wrong in it. What is wrong hinders nothing: every line is there. */
export interface ReadFeature {
  readonly lines: readonly ReadLine[];
  readonly problems: readonly FeatureProblem[];
}

/** The parser gives up after ten problems; it is asked again without the lines it could not take, so often. */
const MOST_PASSES = 10;

/** The text that was read last, and what it says: while somebody types, several ask for the same, and then for nearly the same. */
let last: { readonly text: string; readonly read: ReadFeature } | null = null;

/**
 * Reads the text of a feature file (Gherkin, all languages of the standard) with the parser of the standard, so that
 * what is a step here is one wherever the file is executed. In time linear in the text but for files with many errors.
 */
export function readFeature(text: string): ReadFeature {
  if (last?.text !== text) last = { text, read: (last === null ? null : readWithin(last, text)) ?? readAnew(text) };
  return last.read;
}

/** The code of the language a feature is written in. */
export function languageOf({ lines }: ReadFeature): string {
  return lines.find((l) => l.role === 'language')?.text.trim() ?? 'en';
}

/** Exported as the judge of what is read from what was read before. */
export function readAnew(text: string): ReadFeature {
  const lines = text.replace(/^\uFEFF/, '').split('\n');
  const problems: FeatureProblem[] = [];
  for (let pass = 1; ; pass += 1) {
    const { roles, found, ended } = readOnce(lines.join('\n'), lines.length);
    // One a line: the parser tells of a tag with a space in it twice.
    for (const problem of found) if (!problems.some((known) => known.line === problem.line)) problems.push(problem);
    if (ended || pass === MOST_PASSES) return { lines: roles, problems: withLastWord(problems, ended, roles) };
    for (const { line } of found) lines[line - 1] = '';
  }
}

/**
 * A text that differs within one scenario from another one that was read: only that scenario is read. Null where more
 * than its own lines may be other ones for it, or something in it is no good Gherkin.
 */
function readWithin(before: { readonly text: string; readonly read: ReadFeature }, text: string): ReadFeature | null {
  const { lines } = before.read;
  if (before.read.problems.length > 0) return null;
  const [was, now] = [before.text.split('\n'), text.split('\n')];
  const from = sameLines(was, now);
  const to = was.length - sameLines(was.slice(from).reverse(), now.slice(from).reverse());
  const start = lines.findLastIndex((line, i) => i <= from && line.role === 'scenario');
  const feature = lines.find((line) => line.role === 'feature')?.keyword;
  const next = lines.findIndex((line, i) => i >= Math.max(to, start + 1) && BEGINS_ANOTHER.has(line.role));
  if (start < 0 || feature === undefined || lines.some((line, i) => i > start && i < to && BEGINS_ANOTHER.has(line.role))) return null;
  // With the keyword that ends it: blank lines before that may be of a description.
  const end = next < 0 ? was.length : next + 1;
  const mine = now.slice(start, now.length - (was.length - end));
  const read = readAnew([`# language: ${languageOf(before.read)}`, `${feature}:`, ...mine].join('\n'));
  const fresh = read.lines.slice(2);
  const begins = [lines[start]?.role, ...(next < 0 ? [] : [lines[next]?.role])].join();
  if (read.problems.length > 0 || fresh[0]?.role !== 'scenario' || fresh.flatMap(({ role }) => (BEGINS_ANOTHER.has(role) ? [role] : [])).join() !== begins) return null;
  return { lines: [...lines.slice(0, start), ...fresh, ...lines.slice(end)], problems: [] };
}

const BEGINS_ANOTHER: ReadonlySet<LineRole> = new Set(['feature', 'rule', 'background', 'scenario']);

function sameLines(a: readonly string[], b: readonly string[]): number {
  let count = 0;
  while (count < a.length && count < b.length && a[count] === b[count]) count += 1;
  return count;
}

function withLastWord(problems: readonly FeatureProblem[], ended: boolean, lines: readonly ReadLine[]): FeatureProblem[] {
  const sorted = problems.toSorted((a, b) => a.line - b.line || a.column - b.column);
  return ended ? sorted : [...sorted, { code: 'not_read_further', line: Math.max(1, lines.findLastIndex((l) => l.role !== 'unread') + 2), column: 1, found: '' }];
}

interface Pass {
  readonly roles: readonly ReadLine[];
  readonly found: readonly FeatureProblem[];
  /** False: the parser gave up before the end. */
  readonly ended: boolean;
}

const UNREAD: ReadLine = { role: 'unread', keyword: '', text: '', stepKind: 'other', items: [] };

function readOnce(text: string, count: number): Pass {
  const builder = new LineBuilder(count);
  try {
    new Parser(builder, new GherkinClassicTokenMatcher()).parse(text);
    return { roles: builder.lines, found: builder.problems, ended: true };
  } catch (error) {
    if (!(error instanceof Errors.GherkinException)) throw error;
    const errors = 'errors' in error && Array.isArray(error.errors) ? (error.errors as Error[]) : [error];
    const source = text.split('\n');
    const found = errors.flatMap((e) => problemOf(e, source) ?? []);
    return { roles: builder.lines, found: [...found, ...builder.problems], ended: errors.length <= 10 };
  }
}

function problemOf(error: Error, lines: readonly string[]): FeatureProblem | null {
  if (!(error instanceof Errors.GherkinException)) return null;
  const { line = 1, column = 1 } = error.location ?? {};
  return { code: codeOf(error), line: Math.min(line, lines.length), column, found: (lines[line - 1] ?? '').trim() };
}

function codeOf(error: Error): FeatureProblemCode {
  if (error instanceof Errors.NoSuchLanguageException) return 'unknown_language';
  if (error.message.includes('unexpected end of file')) return 'unexpected_end';
  return error.message.includes('A tag may not contain whitespace') ? 'space_in_tag' : 'unexpected_line';
}

const ROLE_OF_TOKEN: ReadonlyMap<TokenType, LineRole> = new Map([
  [TokenType.EOF, 'blank'],
  [TokenType.Empty, 'blank'],
  [TokenType.Comment, 'comment'],
  [TokenType.Language, 'language'],
  [TokenType.TagLine, 'tags'],
  [TokenType.FeatureLine, 'feature'],
  [TokenType.RuleLine, 'rule'],
  [TokenType.BackgroundLine, 'background'],
  [TokenType.ScenarioLine, 'scenario'],
  [TokenType.ExamplesLine, 'examples'],
  [TokenType.StepLine, 'step'],
  [TokenType.DocStringSeparator, 'docStringEdge'],
  [TokenType.TableRow, 'tableRow'],
]);

const STEP_KIND: Readonly<Record<StepKeywordType, StepKind>> = {
  [StepKeywordType.CONTEXT]: 'given',
  [StepKeywordType.ACTION]: 'when',
  [StepKeywordType.OUTCOME]: 'then',
  [StepKeywordType.CONJUNCTION]: 'and',
  [StepKeywordType.UNKNOWN]: 'other',
};

/** Keeps what the parser takes each line for. Given to it in place of its own builder, it learns of lines before and after an error too. */
class LineBuilder extends AstBuilder {
  readonly lines: ReadLine[];
  readonly problems: FeatureProblem[] = [];
  readonly #within: RuleType[] = [];
  /** Cells of the table that stands last. */
  #width: number | null = null;

  constructor(count: number) {
    // It makes no nodes, so that it asks for no ids.
    super(() => '');
    this.lines = new Array<ReadLine>(count).fill(UNREAD);
  }

  override startRule(rule: RuleType): void {
    this.#within.push(rule);
    if (rule === RuleType.DataTable || rule === RuleType.ExamplesTable) this.#width = null;
  }

  override endRule(): void {
    this.#within.pop();
  }

  override build(token: IToken<TokenType>): void {
    const at = token.location.line - 1;
    if (at >= this.lines.length) return;
    const role = ROLE_OF_TOKEN.get(token.matchedType) ?? (this.#within.at(-1) === RuleType.DocString ? 'docString' : 'description');
    this.lines[at] = {
      role,
      keyword: (token.matchedKeyword ?? '').trim(),
      text: token.matchedText ?? '',
      stepKind: STEP_KIND[token.matchedKeywordType ?? StepKeywordType.UNKNOWN],
      items: token.matchedItems,
    };
    if (role === 'tableRow') this.#compareWidth(token);
  }

  #compareWidth({ location, matchedItems }: IToken<TokenType>): void {
    this.#width ??= matchedItems.length;
    if (matchedItems.length !== this.#width) this.problems.push({ code: 'uneven_table', line: location.line, column: location.column ?? 1, found: `${matchedItems.length}` });
  }

  override getResult(): null {
    return null;
  }
}
