import type { Attachment } from '../attachments/index.ts';
import { numberedSteps } from '../caseFiles/index.ts';
import type { HandOffNumber } from './handOff.ts';
import type { ExecutedInstance, ExecutedStep } from './executed.ts';

/** What stands above the instances of a written hand-off. */
export interface HandOffHead {
  readonly project: { readonly key: string; readonly name: string };
  readonly number: HandOffNumber;
  readonly name: string;
  readonly note: string;
  /** A day, as ISO writes it; null: none was said. */
  readonly due: string | null;
  readonly by: string;
  readonly at: string;
  /** The baseline whose exact versions are handed off: `B-3`. */
  readonly baseline: string;
  /** Whose part it is; null: all of it. */
  readonly person: string | null;
}

/** The facts of the head, in words. */
export function headLines({ project, number, name, due, by, at, baseline, person }: HandOffHead): string[] {
  return [
    `${project.name} · H-${number} ${name}${person === null ? '' : ` · the part of ${person === '' ? 'nobody' : person}`}`,
    `Handed off by ${by} on ${at.slice(0, 10)}, with the versions of ${baseline}${due === null ? '' : `; to be done by ${due}`}`,
  ];
}

/** The columns of a table to be worked with; the last ones are empty, for whoever executes it. */
export const HAND_OFF_COLUMNS = ['hand-off', 'instance', 'title', 'configuration', 'person', 'minutes', 'before', 'step', 'action', 'expected', 'files', 'done', 'remark', 'minutes needed'] as const;

/** How its rows call a hand-off: `fonte-clara H-2`. */
export function handOffName({ project, number }: { readonly project: { readonly key: string }; readonly number: HandOffNumber }): string {
  return `${project.key} H-${number}`;
}

/** A row for each step, each with the hand-off, the instance and the number of its step, so that rows that were sorted or taken out still say what they are of. */
export function* handOffRows(name: string, instances: Iterable<ExecutedInstance>): Generator<string[]> {
  yield [...HAND_OFF_COLUMNS];
  for (const instance of instances) {
    const { key, title, configuration, person, minutes, steps, files } = instance;
    const first = [title, configuration, person, minutes === null ? '' : String(minutes), beforeText(instance)];
    const rows = steps.length === 0 ? [{ number: '', through: '', action: '', expected: '', files }] : steps;
    let through = '';
    for (const [i, step] of rows.entries()) {
      const action = actionCell(step, through);
      through = step.through;
      yield [name, key, ...(i === 0 ? first : ['', '', '', '', '']), String(step.number), action, step.expected, fileNames(i === 0 && steps.length > 0 ? [...files, ...step.files] : step.files), '', '', ''];
    }
  }
}

/** What is done, led by where it comes from where that is not what the step before comes from. */
export function actionCell({ through, action }: Pick<ExecutedStep, 'through' | 'action'>, before: string): string {
  return through !== before && through !== '' ? `[${through}]\n${action}` : action;
}

function beforeText({ before }: ExecutedInstance): string {
  return before.map(({ word, text }) => `${word}: ${text}`).join('\n');
}

function fileNames(files: readonly Attachment[]): string {
  return files.map((file) => file.name).join(', ');
}

/** A hand-off as a Markdown document, piece by piece. What was written stands in quotations and lists, so that nothing in it parts the document. */
export function* handOffMarkdown(head: HandOffHead, instances: Iterable<ExecutedInstance>): Generator<string> {
  const [title = '', facts = ''] = headLines(head);
  yield `# ${oneLine(title)}\n\n${oneLine(facts)}\n${head.note === '' ? '' : `\n${quoted(head.note)}\n`}`;
  for (const instance of instances) yield sectionOf(instance);
}

function sectionOf({ key, title, configuration, person, minutes, before, steps, files }: ExecutedInstance): string {
  const facts = [...(configuration === '' ? [] : [`in ${configuration}`]), ...(person === '' ? [] : [`for ${person}`]), ...(minutes === null ? [] : [`${minutes} minutes`]), ...(files.length === 0 ? [] : [`files: ${fileNames(files)}`])].map(oneLine);
  const actions = steps.map((step) => (step.expected === '' ? step.action : `${step.action}\n=> ${step.expected}`.trim()));
  const parts = [
    `## ${oneLine(title)} (${oneLine(key)})`,
    ...(facts.length === 0 ? [] : [facts.join(', ')]),
    ...before.map(({ word, text }) => `**${word}**\n\n${quoted(text)}`),
    ...(steps.length === 0 ? [] : [numberedSteps(actions, true)]),
  ];
  return `\n${parts.join('\n\n')}\n`;
}

function quoted(text: string): string {
  return text.split('\n').map((line) => `> ${line}`).join('\n');
}

function oneLine(text: string): string {
  return text.replaceAll(/\s+/g, ' ').trim();
}
