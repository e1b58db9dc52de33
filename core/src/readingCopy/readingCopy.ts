import type { Attachment } from '../attachments/index.ts';
import { EMPTY_CASE, type CaseContent } from '../cases/index.ts';
import { countItems, coverageItems, type ConditionContent } from '../conditions/index.ts';
import type { DataSetContent } from '../dataSets/index.ts';
import type { KindAndContent } from '../kinds/index.ts';
import { textOf } from '../scenarios/index.ts';
import { instanceName, instancesOf, openCase, type Constants, type Library, type OpenedCase, type OpenedPart, type OpenedStep } from '../shared/index.ts';
import type { SuiteContent } from '../suites/index.ts';

/** A text of an artefact by what it is in it. */
export type CopiedField = 'text' | 'answer' | 'purpose' | 'objective' | 'mission' | 'areas' | 'ideas' | 'preconditions' | 'scenarios';

/**
 * Text as it is written, or what stands in place of a name: its value; the name itself where it is left without one on
 * purpose, or has none; the id of what is not there any more.
 */
export interface CopiedPart {
  readonly kind: 'text' | 'value' | 'missing' | 'unbound' | 'gone';
  readonly text: string;
}

export interface CopiedStep {
  /** The shared steps or the called case it comes from, as `S-5 Title`; '': the artefact itself. */
  readonly from: string;
  readonly action: readonly CopiedPart[];
  readonly expected: readonly CopiedPart[];
}

export interface CopiedInstance {
  /** Its rows; '': it runs without one. */
  readonly name: string;
  readonly texts: readonly { readonly field: CopiedField; readonly parts: readonly CopiedPart[] }[];
  readonly steps: readonly CopiedStep[];
}

/** What somebody outside is given to read of an artefact: words alone, that need nothing else of the project. */
export interface ReadingCopy {
  readonly title: string;
  readonly texts: readonly { readonly field: CopiedField; readonly text: string }[];
  /** Rows of data below the names of their columns, or the items of a condition; null: there is none. */
  readonly table: readonly (readonly string[])[] | null;
  readonly instances: readonly CopiedInstance[];
  /** How many instances and rows there are beyond those in it. */
  readonly beyond: bigint;
  /** Names of files that belong to it, which the copy does not hold. */
  readonly files: readonly string[];
}

/** Rows of a table. */
const MOST_ROWS = 500;
/** Instances, of which a case may have millions. */
const MOST_INSTANCES = 20;
/** Steps of all instances together. */
const MOST_STEPS = 2_000;

/**
 * The copy for reading of an artefact as it stands in `library`. Of an instance values stand in place of names; names
 * without a value stay as `<name>`. `constants` are to be without what is secret. Bounded: what is left out is counted
 * in `beyond`; a case that cannot be opened has no instance.
 */
export function readingCopy(artefact: KindAndContent, library: Library, constants: Constants): ReadingCopy {
  const { title } = artefact.content;
  const none: ReadingCopy = { title, texts: [], table: null, instances: [], beyond: 0n, files: [] };
  switch (artefact.kind) {
    case 'requirement':
      return { ...none, texts: texts({ text: artefact.content.text }), files: names(artefact.content.attachments) };
    case 'question':
      return { ...none, texts: texts({ text: artefact.content.text, answer: artefact.content.status === 'open' ? '' : artefact.content.answer }), files: names(artefact.content.attachments) };
    case 'feature':
      return { ...none, texts: texts({ scenarios: textOf(artefact.content) }) };
    case 'condition':
      return { ...none, ...itemsOf(artefact.content), files: names(artefact.content.attachments) };
    case 'dataSet':
      return { ...none, texts: texts({ purpose: artefact.content.purpose }), ...table(...rowsOf(artefact.content)) };
    case 'suite':
      return { ...none, texts: texts({ purpose: artefact.content.purpose }), ...table(['part', 'member'], membersOf(artefact.content)) };
    case 'shared':
      return { ...none, texts: texts({ purpose: artefact.content.purpose }), ...instances({ ...EMPTY_CASE, steps: artefact.content.steps, parameters: artefact.content.parameters }, library, constants) };
    case 'case':
      return { ...none, ...instances(artefact.content, library, constants) };
  }
}

function texts(of: Partial<Record<CopiedField, string>>): ReadingCopy['texts'] {
  return (Object.entries(of) as [CopiedField, string][]).flatMap(([field, text]) => (text.trim() === '' ? [] : [{ field, text }]));
}

function names(attachments: readonly Attachment[]): string[] {
  return attachments.map((a) => a.name);
}

function table(columns: readonly string[], rows: readonly (readonly string[])[]): Pick<ReadingCopy, 'table' | 'beyond'> {
  return rows.length === 0 ? { table: null, beyond: 0n } : { table: [columns, ...rows.slice(0, MOST_ROWS)], beyond: BigInt(Math.max(0, rows.length - MOST_ROWS)) };
}

/** Of too many none is worked out: whoever has the link must not keep the server busy. */
function itemsOf(content: ConditionContent): Pick<ReadingCopy, 'table' | 'beyond'> {
  const count = countItems(content.model);
  return count > BigInt(MOST_ROWS) ? { table: null, beyond: count } : table(['coverage item'], coverageItems(content).map((item) => [item.name]));
}

/** The members picked by hand by their ids: their titles are not what the link was given for. */
function membersOf({ entries }: SuiteContent): string[][] {
  let part = '';
  return entries.flatMap((entry) => {
    if (entry.kind === 'member') return [[part, entry.of]];
    part = entry.title;
    return [];
  });
}

function rowsOf({ parameters, rows }: DataSetContent): [columns: string[], rows: string[][]] {
  return [['row', ...parameters.map((p) => p.name)], rows.map((row) => [row.name, ...parameters.map((p) => row.cells[p.id] ?? '')])];
}

function instances(content: CaseContent, library: Library, constants: Constants): Pick<ReadingCopy, 'instances' | 'beyond' | 'files'> {
  const opened = openCase(content, library, constants);
  if (opened.kind !== 'opened' || opened.steps.length > MOST_STEPS) return { instances: [], beyond: opened.kind === 'opened' ? opened.instances : 1n, files: names(content.attachments) };
  const most = Math.min(MOST_INSTANCES, Math.floor(MOST_STEPS / Math.max(1, opened.steps.length)));
  const copied: CopiedInstance[] = [];
  for (const instance of instancesOf(opened)) {
    if (copied.length === most) break;
    copied.push({ name: instanceName(instance), texts: textsInPlace(content, opened), steps: opened.steps.map(copiedStep) });
  }
  const files = [...names(content.attachments), ...opened.steps.flatMap((line) => (line.kind === 'step' ? names(line.step.attachments) : []))];
  return { instances: copied, beyond: opened.instances - BigInt(copied.length), files: [...new Set(files)] };
}

function textsInPlace(content: CaseContent, { scope }: OpenedCase): CopiedInstance['texts'] {
  const { objective, preconditions } = content;
  const fields = content.kind === 'charter' ? texts({ mission: objective, areas: content.areas, ideas: content.ideas, preconditions }) : texts({ objective, preconditions });
  return fields.map(({ field, text }) => ({ field, parts: copiedParts(scope.open(text)) }));
}

function copiedStep(line: OpenedStep): CopiedStep {
  const used = line.through.at(-1)?.used;
  const from = used === undefined ? '' : `${used.id} ${used.content.title}`;
  if (line.kind === 'gone') return { from, action: [{ kind: 'gone', text: line.step.kind === 'shared' ? line.step.shared : line.step.case }], expected: [] };
  return { from, action: copiedParts(line.scope.open(line.step.action)), expected: copiedParts(line.scope.open(line.step.expected)) };
}

function copiedParts(parts: readonly OpenedPart[]): CopiedPart[] {
  return parts.map((part): CopiedPart => {
    if (part.kind === 'text') return part;
    const { value, name } = part;
    return value.kind === 'value' ? { kind: 'value', text: value.text } : { kind: value.kind === 'missing' ? 'missing' : 'unbound', text: name };
  });
}
