import type { ArtefactId, CoveringId } from '../artefacts/index.ts';
import { parseParameterText, type CaseContent } from '../cases/index.ts';
import { FILE_LIMITS } from '../exchange/index.ts';
import { WHOLE, type RemarkPlace } from '../remarks/index.ts';
import { openCase, type Library, type OpenedStep } from '../shared/index.ts';
import { ownerOf } from '../suites/index.ts';
import type { ExecutedInstance } from './executed.ts';
import { HAND_OFF_COLUMNS, actionCell } from './handOffFile.ts';
import type { HandOffLine, HandOffNumber } from './handOff.ts';

/** What somebody who executed noted at an instance, or at a step of it. */
export interface ReturnedNote {
  /** Which hand-off its row says that it is of; empty: it does not say. */
  readonly handOff: string;
  readonly instance: string;
  /** Null: the instance as a whole. */
  readonly step: number | null;
  readonly remark: string;
  /** What stands in the file now; null: the file does not say. */
  readonly action: string | null;
  readonly expected: string | null;
  /** That it really took, as it was written. */
  readonly minutes: string;
}

/** Columns without which nobody can say what a row is of. */
const NEEDED = ['hand-off', 'instance', 'step'] as const satisfies readonly (typeof HAND_OFF_COLUMNS)[number][];

/** How a sheet that came back is read: the row that names its columns is known by their names. */
export const RETURNED_TABLE = { most: FILE_LIMITS.rows, isName: (cell: string): boolean => HAND_OFF_COLUMNS.some((name) => name === cell.trim().toLowerCase()), hasSections: false } as const;

/** The notes in a table that was handed off; whatever order its rows and columns are in. Null: it is no such table. */
export function notesOfTable(columns: readonly string[], rows: Iterable<readonly (string | null)[]>): ReturnedNote[] | null {
  const named = columns.map((name) => name.trim().toLowerCase());
  if (NEEDED.some((name) => !named.includes(name))) return null;
  const at = (name: (typeof HAND_OFF_COLUMNS)[number], row: readonly (string | null)[]): string | null => {
    const place = named.indexOf(name);
    return place < 0 ? null : (row[place] ?? '').replaceAll('\r\n', '\n');
  };
  return [...rows].flatMap((row): ReturnedNote[] => {
    const step = (at('step', row) ?? '').trim();
    const note = { handOff: (at('hand-off', row) ?? '').trim(), instance: (at('instance', row) ?? '').trim(), step: step === '' ? null : Number(step), remark: (at('remark', row) ?? '').trim(), action: at('action', row), expected: at('expected', row), minutes: (at('minutes needed', row) ?? '').trim() };
    return Object.values(note).every((value) => value === '' || value === null) ? [] : [note];
  });
}

/** What a note comes to: something said at a place of what the step was written in, perhaps with a text that is offered instead. */
export interface ReturnedProposal {
  readonly of: ArtefactId;
  /** The version that was handed off. */
  readonly version: number;
  readonly place: RemarkPlace;
  /** What stood there. */
  readonly said: string;
  /** What was said, or that it was changed, or how long it took. */
  readonly text: string;
  readonly offer: string | null;
  /** What was executed, and at which step. */
  readonly instances: readonly string[];
  readonly step: number | null;
}

/** Where something was noted, and by whom where that is known (empty: it is not), as it stands below what was said: `(H-2, C-4·lowest and 3 more, Rui M.)`. */
export function notedWords(handOff: HandOffNumber, by: string, { instances }: Pick<ReturnedProposal, 'instances'>): string {
  return `(H-${handOff}, ${instances.slice(0, MOST_NAMED).join(', ')}${instances.length > MOST_NAMED ? ` and ${instances.length - MOST_NAMED} more` : ''}${by === '' ? '' : `, ${by}`})`;
}

const MOST_NAMED = 3;

/** Why a note comes to nothing. */
export type UnplacedNote = { readonly instance: string; readonly step: number | null; readonly why: 'unknownInstance' | 'unknownStep' | 'otherHandOff' };

/** What came back, place by place, and what has no place. What several instances say alike at one place is one. */
export interface Returned {
  readonly proposals: readonly ReturnedProposal[];
  readonly unplaced: readonly UnplacedNote[];
}

/** A hand-off as it was made, to hold against what came back. `handOff`: as rows call it: `fonte-clara H-2`. */
export interface HandedBefore {
  readonly handOff: string;
  readonly lines: readonly HandOffLine[];
  readonly contents: ReadonlyMap<CoveringId, CaseContent>;
  readonly library: Library;
  readonly instances: Iterable<ExecutedInstance>;
}

/** What notes come to. Rows that are missing, or in another order, say nothing; what was not changed comes to nothing. */
export function returnedProposals(notes: readonly ReturnedNote[], { handOff, lines, contents, library, instances }: HandedBefore): Returned {
  const known = new Map<string, ExecutedInstance>();
  const named = new Set(notes.map((note) => note.instance));
  for (const instance of instances) if (named.has(instance.key)) known.set(instance.key, instance);
  const versions = new Map(lines.map((line) => [line.of, line.version]));
  const written = new Map<CoveringId, readonly OpenedStep[]>();
  const stepsOf = (of: CoveringId): readonly OpenedStep[] => {
    const content = contents.get(of);
    const opened = written.get(of) ?? (content === undefined ? [] : openedSteps(content, library));
    written.set(of, opened);
    return opened;
  };
  const proposals = new Map<string, ReturnedProposal>();
  const unplaced: UnplacedNote[] = [];
  for (const note of notes) {
    const { instance: key, step } = note;
    const instance = known.get(key);
    if (note.handOff !== '' && note.handOff !== handOff) unplaced.push({ instance: key, step, why: 'otherHandOff' });
    else if (instance === undefined) unplaced.push({ instance: key, step, why: 'unknownInstance' });
    else if (step !== null && instance.steps[step - 1] === undefined) unplaced.push({ instance: key, step, why: 'unknownStep' });
    else for (const proposal of proposalsOf(note, instance, stepsOf(instance.of), versions.get(instance.of) ?? 1)) addProposal(proposals, proposal);
  }
  return { proposals: [...proposals.values()], unplaced };
}

function openedSteps(content: CaseContent, library: Library): readonly OpenedStep[] {
  const opened = openCase(content, library);
  return opened.kind === 'opened' ? opened.steps : [];
}

function addProposal(proposals: Map<string, ReturnedProposal>, proposal: ReturnedProposal): void {
  const key = JSON.stringify([proposal.of, proposal.place, proposal.text, proposal.offer]);
  const there = proposals.get(key);
  proposals.set(key, there === undefined ? proposal : { ...there, instances: [...new Set([...there.instances, ...proposal.instances])] });
}

function proposalsOf(note: ReturnedNote, instance: ExecutedInstance, steps: readonly OpenedStep[], version: number): ReturnedProposal[] {
  const whole: ReturnedProposal = { of: ownerOf(instance.of), version, place: WHOLE, said: '', offer: null, instances: [instance.key], step: null, text: '' };
  const scenario = whole.of === instance.of ? '' : ` (${instance.title})`;
  const took: ReturnedProposal[] = note.minutes === '' ? [] : [{ ...whole, text: minutesWords(note.minutes, instance.minutes, scenario) }];
  if (note.step === null) return [...(note.remark === '' ? [] : [{ ...whole, text: note.remark + scenario }]), ...took];
  return [...atStep(note, note.step, instance, steps, { ...whole, step: note.step }), ...took];
}

/** A number of minutes, or what somebody wrote in its place. */
function minutesWords(needed: string, planned: number | null, scenario: string): string {
  if (/^\d+(?:[.,]\d+)?$/.test(needed)) return `Took ${needed} minutes${planned === null ? '' : `, not ${planned}`}${scenario}.`;
  return `Minutes needed${planned === null ? '' : `, planned as ${planned}`}${scenario}: ${needed}`;
}

function atStep(note: ReturnedNote, number: number, instance: ExecutedInstance, steps: readonly OpenedStep[], whole: ReturnedProposal): ReturnedProposal[] {
  const [executed, before, line] = [instance.steps[number - 1], instance.steps[number - 2], steps[number - 1]];
  if (executed === undefined) return [];
  const handed = { action: actionCell(executed, before?.through ?? ''), expected: executed.expected };
  const changed = (['action', 'expected'] as const).flatMap((field) => {
    const now = note[field]?.trim() ?? '';
    return now === '' || now === handed[field].trim() ? [] : [{ field, now: field === 'action' ? withoutThrough(now, executed.through) : now }];
  });
  // A scenario has its steps as lines of its feature: what is said of one is said of the whole.
  const place = line === undefined || whole.of !== instance.of ? null : placeOf(line, whole);
  const said = executed.action === '' ? executed.expected : executed.action;
  const words = place === null ? ` (${instance.title}, step ${number}: ${said})` : '';
  const about = place === null ? whole : { ...whole, ...place.at, said };
  return [
    ...(note.remark === '' ? [] : [{ ...about, text: note.remark + words }]),
    ...changed.map(({ field, now }): ReturnedProposal => {
      const text = `Executed as: ${now}${words}`;
      if (place === null || line?.kind !== 'step') return { ...about, text };
      const offer = withNames(line.step[field], executed[field].trim(), now);
      return { ...about, place: { path: `steps/${line.step.id}/${field}`, words: null }, said: executed[field], text, offer };
    }),
  ];
}

/** Where a step is written: in the case itself, or in what it uses. */
function placeOf({ step, through }: OpenedStep, whole: Pick<ReturnedProposal, 'of' | 'version'>): { readonly at: Pick<ReturnedProposal, 'of' | 'version' | 'place'> } {
  const last = through.at(-1);
  const of = last === undefined ? whole : { of: last.used.id, version: last.used.version };
  return { at: { of: of.of, version: of.version, place: { path: `steps/${step.id}`, words: null } } };
}

function withoutThrough(text: string, through: string): string {
  const head = `[${through}]\n`;
  return through !== '' && text.startsWith(head) ? text.slice(head.length) : text;
}

/**
 * A text that was changed with values in place, with the names of the parameters in their places again; null where nobody can say which words are values:
 * one is gone, or stands there more often than before, or the text has brackets of its own.
 */
export function withNames(template: string, handed: string, changed: string): string | null {
  const parts = parseParameterText(template.trim());
  const names = parts.flatMap((part) => (part.kind === 'parameter' ? [part.name] : []));
  if (/[<\\]/.test(changed)) return null;
  if (names.length === 0) return changed;
  const values = valuesIn(parts, handed);
  if (values === null) return null;
  let rest = changed;
  let named = '';
  for (const [i, value] of values.entries()) {
    if (value === '' || countOf(handed, value) !== countOf(changed, value)) return null;
    const at = rest.indexOf(value);
    if (at < 0) return null;
    named += `${rest.slice(0, at)}<${names[i]}>`;
    rest = rest.slice(at + value.length);
  }
  return named + rest;
}

/** The values that stand for the parameters of a text, each up to where the words behind it begin; null where its plain words do not say. */
function valuesIn(parts: ReturnType<typeof parseParameterText>, handed: string): string[] | null {
  const values: string[] = [];
  let at = 0;
  for (const [i, part] of parts.entries()) {
    if (part.kind === 'text') {
      if (!handed.startsWith(part.text, at)) return null;
      at += part.text.length;
      continue;
    }
    const next = parts[i + 1];
    const end = next === undefined ? handed.length : next.kind === 'text' ? handed.indexOf(next.text, at) : at;
    if (end < 0) return null;
    values.push(handed.slice(at, end));
    at = end;
  }
  return at === handed.length ? values : null;
}

function countOf(text: string, words: string): number {
  return text.split(words).length - 1;
}
