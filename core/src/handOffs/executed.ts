import type { CoveringId, Priority } from '../artefacts/index.ts';
import type { Attachment } from '../attachments/index.ts';
import { textsBefore, type CaseContent, type Execution } from '../cases/index.ts';
import { instanceName, instancesOf, openCase, openedText, visibleConstants, type Configuration, type Constant, type Library, type OpenedCase, type OpenedInstance, type OpenedStep } from '../shared/index.ts';
import { configurationNames, type HandOffLine } from './handOff.ts';

/** A step as it is executed: its values are in place. */
export interface ExecutedStep {
  readonly number: number;
  /** The shared steps and called cases it comes from, from the outermost in: `S-1 Sign in › S-4 Open the meter`. */
  readonly through: string;
  readonly action: string;
  readonly expected: string;
  readonly files: readonly Attachment[];
}

/** What is executed once: an instance in a configuration. */
export interface ExecutedInstance {
  /** Its identity within the hand-off, as an automated test can name it: `C-40·highest@Telephone`. */
  readonly key: string;
  readonly of: CoveringId;
  readonly version: number;
  readonly title: string;
  readonly module: string;
  readonly priority: Priority;
  readonly tags: readonly string[];
  readonly execution: Execution;
  /** Of the row or rows; empty: it has none. */
  readonly name: string;
  /** Empty: in none. */
  readonly configuration: string;
  readonly person: string;
  readonly minutes: number | null;
  /** What is to be known before the first step. */
  readonly before: readonly { readonly word: string; readonly text: string }[];
  /** The parameters of the case itself that have a value. */
  readonly values: readonly { readonly name: string; readonly value: string }[];
  readonly steps: readonly ExecutedStep[];
  readonly files: readonly Attachment[];
}

/** What the lines of a hand-off are opened with. */
export interface HandedOff {
  /** By the id of a line, at the version that it says. */
  readonly contents: ReadonlyMap<CoveringId, CaseContent>;
  readonly library: Library;
  readonly constants: readonly Constant[];
  readonly configurations: readonly Configuration[];
}

/** All instances of some lines, in their order, one at a time. A line of which nothing can be opened has none. */
export function* executedInstances(lines: Iterable<HandOffLine>, handed: HandedOff): Generator<ExecutedInstance> {
  const names = configurationNames(handed.configurations);
  for (const line of lines) {
    const content = handed.contents.get(line.of);
    const opened = content === undefined ? null : openCase(content, handed.library, visibleConstants(handed.constants, line.configuration));
    if (content === undefined || opened?.kind !== 'opened') continue;
    const configuration = line.configuration === null ? '' : (names.get(line.configuration) ?? line.configuration);
    const taken = new Set<string>();
    const whole: Opened = { line, content, opened, configuration, before: textsBefore(content) };
    for (const instance of instancesOf(opened)) yield executedInstance(whole, instance, keyOf(line.of, configuration, opened, instance, taken));
  }
}

/** By the name of the row; by its number too where it has none, or another has the same. */
function keyOf(of: CoveringId, configuration: string, { instances }: OpenedCase, instance: OpenedInstance, taken: Set<string>): string {
  const name = instanceName(instance);
  const number = instance.number + 1n;
  let key = name === '' ? (instances === 1n ? '' : String(number)) : name;
  if (taken.has(key)) key = `${name}·${number}`;
  while (taken.has(key)) key += '·';
  taken.add(key);
  return `${of}${key === '' ? '' : `·${key}`}${configuration === '' ? '' : `@${configuration}`}`;
}

interface Opened {
  readonly line: HandOffLine;
  readonly content: CaseContent;
  readonly opened: OpenedCase;
  readonly configuration: string;
  /** As they are written. */
  readonly before: readonly { readonly word: string; readonly text: string }[];
}

function executedInstance({ line, content, opened: { scope, steps }, configuration, before }: Opened, instance: OpenedInstance, key: string): ExecutedInstance {
  const { of, version, module, execution, person, minutes } = line;
  const values: { name: string; value: string }[] = [];
  for (const { name } of content.parameters) {
    const value = scope.meaningOf(name);
    if (value.kind === 'value') values.push({ name, value: value.text });
  }
  // Named one by one: of a hundred thousand, spreading them takes most of the time.
  return {
    key, of, version, title: openedText(scope.open(content.title)), module, priority: content.priority, tags: content.tags, execution, name: instanceName(instance), configuration, person, minutes,
    before: before.map(({ word, text }) => ({ word, text: openedText(scope.open(text)) })), values, steps: steps.map(executedStep), files: content.attachments,
  };
}

function executedStep(line: OpenedStep, at: number): ExecutedStep {
  const through = line.through.map(({ used }) => `${used.id} ${used.content.title}`).join(' › ');
  if (line.kind === 'gone') return { number: at + 1, through, action: '(what stood here is gone)', expected: '', files: [] };
  const { action, expected, attachments } = line.step;
  return { number: at + 1, through, action: openedText(line.scope.open(action)), expected: openedText(line.scope.open(expected)), files: attachments };
}
