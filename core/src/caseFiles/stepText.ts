import { parseArtefactId, type ArtefactId } from '../artefacts/index.ts';
import type { Step, Use } from '../cases/index.ts';

/** A step as a file says it: written there, or a use of shared steps or of a case. */
export type FileStep = { readonly kind: 'plain'; readonly action: string; readonly expected: string } | { readonly kind: 'use'; readonly of: ArtefactId; readonly given: readonly { readonly id: string; readonly value: string }[] };

/** Begins the line of a use: `→ S-1 Sign in (user = a clerk)`. */
const USE = '→ ';
const USE_LINE = /^→\s*([SC]-\d+)\b/;

export function fileStepOf(step: Step): FileStep {
  return step.kind === 'step' ? { kind: 'plain', action: step.action, expected: step.expected } : { kind: 'use', of: usedBy(step), given: step.arguments };
}

export function usedBy(use: Use): ArtefactId {
  return use.kind === 'shared' ? use.shared : use.case;
}

/** What stands in the cell of an action. The title of what is used is for the reader; the id is what counts. */
export function actionCell(step: FileStep, titleOf: (id: ArtefactId) => string): string {
  if (step.kind === 'plain') return step.action;
  const given = step.given.map(({ id, value }) => `${quoted(id)} = ${quoted(value)}`).join('; ');
  return `${USE}${step.of} ${titleOf(step.of).replaceAll(/[\s()]+/g, ' ').trim()}${given === '' ? '' : ` (${given})`}`.trimEnd();
}

/** A cell as a step. What is no line of a use is written there. */
export function fileStep(action: string, expected: string): FileStep {
  const id = USE_LINE.exec(action)?.[1];
  const parsed = id === undefined ? null : parseArtefactId(id);
  if (id === undefined || parsed === null) return { kind: 'plain', action, expected };
  const brackets = /\((.*)\)\s*$/s.exec(action)?.[1] ?? '';
  return { kind: 'use', of: id as ArtefactId, given: pairsOf(brackets) };
}

/** What is compared: two steps of the same text are the same step. */
export function stepKey(step: FileStep): string {
  return step.kind === 'plain' ? JSON.stringify([step.action, step.expected]) : JSON.stringify([step.of, step.given.map(({ id, value }) => [id, value])]);
}

/** All steps as one text, for people who compare two versions of them. */
export function stepsText(steps: readonly FileStep[]): string {
  return steps.map((step, i) => `${i + 1}. ${step.kind === 'plain' ? indented(step.action) : actionCell(step, () => '')}${step.kind === 'plain' && step.expected !== '' ? `\n   => ${indented(step.expected)}` : ''}`).join('\n');
}

/** Lines of a text below its first one stand in, so that a number at their beginning is none of a step. */
function indented(text: string): string {
  return text.replaceAll('\n', '\n   ');
}

/** The form in which a cell holds the texts of steps: by their numbers, lines below the first standing in. `isEach`: also what says nothing. */
export function numberedSteps(texts: readonly string[], isEach: boolean): string {
  return texts.flatMap((text, i) => (text === '' && !isEach ? [] : [`${i + 1}. ${indented(text)}`])).join('\n');
}

function quoted(text: string): string {
  return /^[^"=;()]*$/.test(text) && text === text.trim() ? text : `"${text.replaceAll('"', '""')}"`;
}

function pairsOf(text: string): { id: string; value: string }[] {
  const PART = /\s*(?:"((?:[^"]|"")*)"|([^"=;]*?))\s*=\s*(?:"((?:[^"]|"")*)"|([^";]*?))\s*(?:;|$)/gy;
  return [...text.matchAll(PART)].flatMap(([, quotedId, id, quotedValue, value]) => {
    const name = quotedId?.replaceAll('""', '"') ?? id ?? '';
    return name === '' ? [] : [{ id: name, value: quotedValue?.replaceAll('""', '"') ?? value ?? '' }];
  });
}
