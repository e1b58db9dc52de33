import type { FeatureContent, FeaturePart, PartId } from './feature.ts';
import { readFeature, type FeatureProblem, type ReadFeature, type ReadLine, type StepKind } from './reading.ts';
import { partSpans } from './splitting.ts';

/** A step of a scenario or a background. Lines count from 0 here, as parts of the text do. */
export interface ScenarioStep {
  readonly line: number;
  readonly keyword: string;
  readonly kind: StepKind;
  readonly text: string;
  /** Rows of cells; null: none. */
  readonly table: readonly (readonly string[])[] | null;
  /** Null: none. */
  readonly docString: string | null;
}

/** A table of examples: the outline is executed once for each row. */
export interface Examples {
  readonly line: number;
  readonly keyword: string;
  readonly name: string;
  /** Its own; those of the outline hold besides. */
  readonly tags: readonly string[];
  readonly header: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}

/** A part with steps, as it is read. */
export interface ReadScenario {
  readonly part: PartId;
  readonly number: number;
  readonly kind: 'scenario' | 'background';
  /** Where its keyword stands. */
  readonly line: number;
  readonly keyword: string;
  readonly name: string;
  readonly description: string;
  /** With those of the rule and the feature it stands in, each once. */
  readonly tags: readonly string[];
  /** The rule it stands in; null: none. */
  readonly rule: PartId | null;
  readonly steps: readonly ScenarioStep[];
  readonly examples: readonly Examples[];
}

/** A rule, which parts a feature. */
export interface ReadRule {
  readonly part: PartId;
  readonly line: number;
  readonly name: string;
  readonly description: string;
}

/** A feature as it is read. */
export interface FeatureOutline {
  readonly name: string;
  readonly description: string;
  readonly tags: readonly string[];
  readonly rules: readonly ReadRule[];
  readonly scenarios: readonly ReadScenario[];
  readonly problems: readonly FeatureProblem[];
}

/** What the text of a feature says: its scenarios with their steps and examples, in the order of the file. */
export function outlineOf(content: Pick<FeatureContent, 'parts'>): FeatureOutline {
  const read = readFeature(content.parts.flatMap((p) => p.lines.map((l) => l.text)).join('\n'));
  const spans = partSpans(read);
  const head = within(read, spans.find((s) => s.kind === 'head') ?? { from: 0, to: 0 });
  const featureTags = tagsAbove(head, 'feature');
  const rules: ReadRule[] = [];
  const scenarios: ReadScenario[] = [];
  let rule: { part: PartId; tags: readonly string[] } | null = null;
  for (const [i, span] of spans.entries()) {
    const part = content.parts[i];
    if (part === undefined || span.kind === 'head') continue;
    const lines = within(read, span);
    if (span.kind === 'rule') {
      rule = { part: part.id, tags: tagsAbove(lines, 'rule') };
      rules.push(readRule(part, lines, span.from));
    } else scenarios.push(readScenario(part, span.kind, lines, span.from, rule?.part ?? null, [...featureTags, ...(rule?.tags ?? [])]));
  }
  return { name: keywordLine(head, 'feature')?.text ?? '', description: descriptionOf(head), tags: featureTags, rules, scenarios, problems: read.problems };
}

/** How often a scenario is executed: once, or once for each row of its examples. */
export function instancesOf({ examples }: Pick<ReadScenario, 'examples'>): number {
  return examples.length === 0 ? 1 : examples.reduce((sum, e) => sum + e.rows.length, 0);
}

function within({ lines }: ReadFeature, { from, to }: { readonly from: number; readonly to: number }): readonly ReadLine[] {
  return lines.slice(from, to);
}

function keywordLine(lines: readonly ReadLine[], role: ReadLine['role']): ReadLine | undefined {
  return lines.find((l) => l.role === role);
}

/** All tags above the keyword. */
function tagsAbove(lines: readonly ReadLine[], role: ReadLine['role']): string[] {
  const keyword = lines.findIndex((l) => l.role === role);
  return unique(lines.slice(0, Math.max(0, keyword)).flatMap((l) => (l.role === 'tags' ? l.items.map((i) => i.text) : [])));
}

function descriptionOf(lines: readonly ReadLine[]): string {
  return lines.flatMap((l) => (l.role === 'description' ? [l.text.trim()] : [])).join('\n').trim();
}

function readRule({ id }: FeaturePart, lines: readonly ReadLine[], from: number): ReadRule {
  const at = lines.findIndex((l) => l.role === 'rule');
  return { part: id, line: from + Math.max(0, at), name: lines[at]?.text ?? '', description: descriptionOf(lines) };
}

function readScenario({ id, number }: FeaturePart, kind: 'scenario' | 'background', lines: readonly ReadLine[], from: number, rule: PartId | null, above: readonly string[]): ReadScenario {
  const at = Math.max(0, lines.findIndex((l) => l.role === kind));
  const firstExamples = lines.findIndex((l) => l.role === 'examples');
  const own = firstExamples === -1 ? lines : lines.slice(0, firstExamples);
  return {
    part: id,
    number,
    kind,
    line: from + at,
    keyword: lines[at]?.keyword ?? '',
    name: lines[at]?.text ?? '',
    description: descriptionOf(own),
    tags: unique([...above, ...tagsAbove(lines, kind)]),
    rule,
    steps: stepsOf(lines, from),
    examples: examplesOf(lines, from),
  };
}

function stepsOf(lines: readonly ReadLine[], from: number): ScenarioStep[] {
  const end = lines.findIndex((l) => l.role === 'examples');
  const steps: { step: ScenarioStep; table: string[][]; docString: string[] }[] = [];
  lines.slice(0, end === -1 ? lines.length : end).forEach((line, i) => {
    const last = steps.at(-1);
    if (line.role === 'step') steps.push({ step: { line: from + i, keyword: line.keyword, kind: line.stepKind, text: line.text, table: null, docString: null }, table: [], docString: [] });
    else if (line.role === 'tableRow') last?.table.push(line.items.map((c) => c.text));
    else if (line.role === 'docString') last?.docString.push(line.text);
  });
  return steps.map(({ step, table, docString }) => ({ ...step, table: table.length === 0 ? null : table, docString: docString.length === 0 ? null : docString.join('\n') }));
}

function examplesOf(lines: readonly ReadLine[], from: number): Examples[] {
  const found: { examples: Examples; table: { line: number; cells: string[] }[] }[] = [];
  let tags: string[] = [];
  lines.forEach((line, i) => {
    const cells = line.items.map((c) => c.text);
    if (line.role === 'tags') tags.push(...cells);
    else if (line.role === 'scenario') tags = [];
    else if (line.role === 'examples') {
      found.push({ examples: { line: from + i, keyword: line.keyword, name: line.text, tags: unique(tags), header: [], rows: [] }, table: [] });
      tags = [];
    } else if (line.role === 'tableRow') found.at(-1)?.table.push({ line: from + i, cells });
  });
  return found.map(({ examples, table: [header, ...rows] }) => ({ ...examples, header: header?.cells ?? [], rows }));
}

function unique(list: readonly string[]): string[] {
  return [...new Set(list)];
}
