import type { ArtefactId, ArtefactState, CaseId, ConditionId } from '../artefacts/index.ts';
import { vagueWords } from '../basis/index.ts';
import { textsBefore, usedBy, type CaseContent } from '../cases/index.ts';
import { openCase, instancesOf, type Constants, type Library, type OpenedCase, type OpenedPart } from '../shared/index.ts';
import { MOST_HANDED_OFF } from './handOff.ts';

/** Why whoever executes a case or scenario may not know what to do, or why it may not be what was meant. */
export type Doubt =
  /** It cannot be opened, or comes to more instances than a hand-off may have: it is left out. */
  | { readonly kind: 'tooLarge' }
  /** None of its rows runs: there is nothing to hand off. */
  | { readonly kind: 'noInstances' }
  /** It has no steps, or as a charter no mission. */
  | { readonly kind: 'nothingToDo' }
  /** Parameters without a value in some instance. */
  | { readonly kind: 'unbound'; readonly names: readonly string[] }
  /** It uses what is not there any more. */
  | { readonly kind: 'gone'; readonly ids: readonly ArtefactId[] }
  | { readonly kind: 'nothingExpected' }
  /** Words of its steps that people understand differently. */
  | { readonly kind: 'unclear'; readonly words: readonly string[] }
  | { readonly kind: 'notAgreed'; readonly state: ArtefactState }
  /** Conditions that changed since it was linked to them. */
  | { readonly kind: 'suspect'; readonly ids: readonly ConditionId[] }
  /** It depends on cases that are not handed off with it. */
  | { readonly kind: 'outside'; readonly ids: readonly CaseId[] }
  | { readonly kind: 'noMinutes' };

/** The gravest first. */
export const DOUBTS = ['tooLarge', 'noInstances', 'nothingToDo', 'unbound', 'gone', 'nothingExpected', 'unclear', 'suspect', 'notAgreed', 'outside', 'noMinutes'] as const satisfies readonly Doubt['kind'][];

/** With one of these nothing of it can be handed off. */
export function leavesOut({ kind }: Pick<Doubt, 'kind'>): boolean {
  return kind === 'tooLarge' || kind === 'noInstances';
}

const MOST_NAMED = 10;

/** How often something is executed in one configuration, and what is doubtful about what it says; `constants`: as they are in each configuration. */
export function doubtsOfContent(content: CaseContent, library: Library, constants: readonly Constants[]): { readonly instances: number; readonly doubts: Doubt[] } {
  const opened = openCase(content, library, constants[0]);
  if (opened.kind !== 'opened' || opened.instances > BigInt(MOST_HANDED_OFF)) return { instances: 0, doubts: [{ kind: 'tooLarge' }] };
  const doubts: Doubt[] = [];
  if (opened.instances === 0n) doubts.push({ kind: 'noInstances' });
  if (content.kind === 'charter' ? content.objective.trim() === '' : opened.steps.length === 0) doubts.push({ kind: 'nothingToDo' });
  const unbound = new Set(constants.flatMap((own) => {
    const inOne = openCase(content, library, own);
    return inOne.kind === 'opened' ? [...unboundNames(content, inOne)] : [];
  }));
  if (unbound.size > 0) doubts.push({ kind: 'unbound', names: [...unbound].slice(0, MOST_NAMED) });
  const gone = [...new Set(opened.steps.flatMap((line): ArtefactId[] => (line.kind === 'gone' ? [usedBy(line.step)] : [])))];
  if (gone.length > 0) doubts.push({ kind: 'gone', ids: gone.slice(0, MOST_NAMED) });
  doubts.push(...doubtsOfSteps(content, opened));
  return { instances: Number(opened.instances), doubts };
}

function doubtsOfSteps(content: CaseContent, { steps }: OpenedCase): Doubt[] {
  const written = steps.flatMap((line) => (line.kind === 'step' ? [line.step] : []));
  const words = new Set(written.flatMap(({ action, expected }) => [...vagueWords(action), ...vagueWords(expected)].map((word) => word.toLowerCase())));
  return [
    ...(content.kind === 'procedure' && written.length > 0 && written.every((step) => step.expected.trim() === '') ? [{ kind: 'nothingExpected' } as const] : []),
    ...(words.size > 0 ? [{ kind: 'unclear' as const, words: [...words].slice(0, MOST_NAMED) }] : []),
    ...(content.execution === 'byHand' && content.estimate === null ? [{ kind: 'noMinutes' } as const] : []),
  ];
}

/** Names that have no value in some instance, in what whoever executes it reads. */
function unboundNames(content: CaseContent, opened: OpenedCase): Set<string> {
  const names = new Set<string>();
  const note = (parts: readonly OpenedPart[]): void => {
    for (const part of parts) if (part.kind === 'parameter' && (part.value.kind === 'unbound' || part.value.kind === 'undeclared')) names.add(part.name);
  };
  const texts = [content.title, ...textsBefore(content).map(({ text }) => text)];
  for (const _ of instancesOf(opened)) {
    for (const text of texts) note(opened.scope.open(text));
    for (const line of opened.steps) if (line.kind === 'step') [line.step.action, line.step.expected].forEach((text) => note(line.scope.open(text)));
  }
  return names;
}
