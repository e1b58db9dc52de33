import { isPlainStep, parameterId, stepId, type CaseContent, type Cover, type ParameterId, type StepId } from '../cases/index.ts';
import { lineId, partId, textOf, type FeatureContent, type FeatureLine, type LineId, type PartId } from './feature.ts';
import type { NewId } from './identities.ts';
import { keywordFor, type Keyword } from './keywords.ts';
import { movedCover } from './movedCover.ts';
import { withPartAtEnd } from './moving.ts';
import { languageOf, readFeature, type ReadLine } from './reading.ts';
import { aligned, tablesIn } from './tidying.ts';

/** What a step of a case has become: the line that says what is done, and the one that says what is expected. */
interface WrittenStep {
  readonly id: StepId;
  readonly done: LineId | null;
  readonly expected: LineId | null;
}

/**
 * The feature with each case as a scenario at its end, or above its first rule: a case with rows as an outline, a
 * precondition as what is given, an action as what happens, an expected result as what is seen then. What the cases
 * cover is told of the scenarios, so that they show what the cases would. Cases that call others are not for this.
 */
export function withScenariosOf(content: FeatureContent, cases: readonly CaseContent[], newId: NewId): FeatureContent {
  const language = languageOf(readFeature(textOf(content)));
  const end = content.parts.some((p) => p.lines.some((l) => l.text.endsWith('\r'))) ? '\r' : '';
  return cases.reduce((feature, testCase) => {
    const written = new Writing(language, end, newId);
    const steps = writeScenario(written, testCase);
    const columns = new Map(testCase.parameters.map((p) => [p.id, parameterId(p.name)]));
    const part = { id: partId(newId()), kind: 'scenario' as const, number: 0, lines: [...written.lines, written.blank()], covers: testCase.covers.map((cover) => coverOf(cover, steps, columns)) };
    return withPartAtEnd(feature, part, newId);
  }, content);
}

/** Lines as they are written one below the other. */
class Writing {
  readonly lines: FeatureLine[] = [];
  readonly #language: string;
  readonly #end: string;
  readonly #newId: NewId;
  #last: 'given' | 'when' | 'then' | null = null;

  constructor(language: string, end: string, newId: NewId) {
    this.#language = language;
    this.#end = end;
    this.#newId = newId;
  }

  line(text: string): LineId {
    const id = lineId(this.#newId());
    this.lines.push({ id, text: text + this.#end });
    return id;
  }

  /** What goes on with what stands above says so. */
  step(kind: 'given' | 'when' | 'then', text: string): LineId {
    const keyword = this.word(kind === this.#last ? 'and' : kind);
    this.#last = kind;
    return this.line(`    ${keyword}${text}`);
  }

  word(of: Keyword['of']): string {
    return keywordFor(of, this.#language);
  }

  blank(): FeatureLine {
    return { id: lineId(this.#newId()), text: this.#end };
  }
}

function writeScenario(written: Writing, { title, preconditions, steps, parameters, rows }: CaseContent): WrittenStep[] {
  written.line(`  ${written.word(rows.length > 0 ? 'scenarioOutline' : 'scenario')} ${oneLine(title)}`.trimEnd());
  for (const given of preconditions.split('\n').map(sentence).filter(Boolean)) written.step('given', given);
  const lines = steps.filter(isPlainStep).map(({ id, action, expected }): WrittenStep => {
    const done = sentence(action) === '' ? null : written.step('when', sentence(action));
    return { id, done, expected: sentence(expected) === '' ? null : written.step('then', sentence(expected)) };
  });
  if (rows.length > 0) {
    const named = rows.some((r) => r.name !== '');
    written.line('');
    written.line(`    ${written.word('examples')}`);
    const header = [...(named ? [freeColumn(parameters.map((p) => p.name))] : []), ...parameters.map((p) => p.name)];
    const table = [header, ...rows.map((row) => [...(named ? [row.name] : []), ...parameters.map((p) => row.cells[p.id] ?? '')])];
    for (const line of aligned(table.map((cells) => rowLine('      ', cells)))) written.line(line);
  }
  return lines;
}

/** What says what a row is; a parameter may be called so already. */
export function freeColumn(taken: readonly string[]): string {
  return ['case', 'row', 'example'].find((name) => !taken.includes(name)) ?? 'what it is';
}

/** A row of a table with its cells between bars. */
export function rowLine(indent: string, cells: readonly string[]): string {
  return `${indent}| ${cells.map((cell) => cell.replace(/[\\|]/g, '\\$&').replace(/\r?\n|\r/g, '\\n')).join(' | ')} |`;
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}

/** In a line of a scenario no full stop ends it. */
function sentence(text: string): string {
  return oneLine(text).replace(/(?<!\.)\.$/, '');
}

function coverOf(cover: Cover, steps: readonly WrittenStep[], columns: ReadonlyMap<ParameterId, ParameterId>): Cover {
  const expected = new Map(steps.flatMap((s) => (s.expected === null ? [] : [[s.id, stepId(s.expected)] as const])));
  const done = new Map(steps.flatMap((s) => (s.done === null ? [] : [[s.id, stepId(s.done)] as const])));
  const told = { ...cover, expects: cover.expects.filter((id) => expected.has(id)), events: cover.events.filter((e) => done.has(e.id)) };
  return { ...movedCover(told, expected, (id) => columns.get(id) ?? id), events: told.events.map((e) => ({ ...e, id: done.get(e.id) ?? e.id })) };
}

/** Columns of the last examples of an outline; empty: it has none. */
export function columnsOfExamples(content: FeatureContent, part: PartId): readonly string[] {
  return lastTable(content, part)?.header ?? [];
}

/** The feature with rows added to the last examples of an outline, cells by the names of its columns; the very same where it has none. */
export function withExampleRows(content: FeatureContent, part: PartId, rows: readonly Readonly<Record<string, string>>[], newId: NewId): FeatureContent {
  const table = lastTable(content, part);
  if (table === null || rows.length === 0) return content;
  return {
    ...content,
    parts: content.parts.map((p) => {
      if (p.id !== part) return p;
      const old = p.lines.slice(table.from, table.to);
      const end = old.some((l) => l.text.endsWith('\r')) ? '\r' : '';
      const indent = /^\s*/.exec(old[0]?.text ?? '')?.[0] ?? '';
      const texts = aligned([...old.map((l) => l.text.replace(/\r$/, '')), ...rows.map((row) => rowLine(indent, table.header.map((column) => row[column] ?? '')))]);
      const lines = texts.map((text, i): FeatureLine => ({ id: old[i]?.id ?? lineId(newId()), text: text + end }));
      return { ...p, lines: [...p.lines.slice(0, table.from), ...lines, ...p.lines.slice(table.to)] };
    }),
  };
}

interface TableLines {
  readonly header: readonly string[];
  /** Lines of the part. */
  readonly from: number;
  readonly to: number;
}

function lastTable(content: FeatureContent, part: PartId): TableLines | null {
  const index = content.parts.findIndex((p) => p.id === part);
  const start = content.parts.slice(0, Math.max(0, index)).reduce((sum, p) => sum + p.lines.length, 0);
  const read: readonly ReadLine[] = readFeature(textOf(content)).lines.slice(start, start + (content.parts[index]?.lines.length ?? 0));
  const examples = read.findLastIndex((l) => l.role === 'examples');
  const table = examples < 0 ? undefined : tablesIn(read).findLast(([from]) => from > examples);
  if (table === undefined) return null;
  const header = read.findIndex((l, i) => i > examples && l.role === 'tableRow');
  return { header: read[header]?.items.map((i) => i.text) ?? [], from: table[0], to: table[1] };
}
