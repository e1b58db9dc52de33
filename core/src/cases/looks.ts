import { vagueWords } from '../basis/index.ts';
import { unusedParameters } from './parameters.ts';
import { expects, isPlainStep, isUse, type PlainStep, type StepId } from './step.ts';
import { parseParameterText } from './parameterText.ts';
import type { LookRule } from './lookRule.ts';
import type { CaseContent } from './testCase.ts';

/** Something in one case that deserves a second look: where, why, and how it would be mended. */
export type Look =
  | { readonly rule: 'noExpectedResult' }
  /** `actions`: the action cut up, one a step. */
  | { readonly rule: 'severalActions'; readonly step: StepId; readonly actions: readonly string[] }
  /** `mended`: the step with the expectation in its place. */
  | { readonly rule: 'hiddenExpectation'; readonly step: StepId; readonly words: string; readonly mended: Pick<PlainStep, 'action' | 'expected'> }
  | { readonly rule: 'vagueWording'; readonly step: StepId; readonly words: string }
  | { readonly rule: 'unusedParameter'; readonly name: string }
  | { readonly rule: 'muchLonger'; readonly steps: number; readonly usual: number };

export interface LookContext {
  /** Names that are used further down, through shared steps and calls. */
  readonly surfaced: ReadonlySet<string>;
  /** Whether something it uses says what is expected. */
  readonly usesExpect: boolean;
  /** How many steps the other cases of its module have. */
  readonly neighbours: readonly number[];
  readonly off: readonly LookRule[];
}

/** What is worth a look in a case by itself: of the whole, of its steps in reading order, of its parameters. The lists of words are English. */
export function looksAt(content: CaseContent, { surfaced, usesExpect, neighbours, off }: LookContext): Look[] {
  const steps = content.steps.filter(isPlainStep);
  const found: Look[] = [
    ...(content.kind === 'procedure' && content.steps.length > 0 && !usesExpect && !content.steps.some(expects) ? [{ rule: 'noExpectedResult' } as const] : []),
    ...steps.flatMap(looksAtStep),
    ...unusedParameters(content, surfaced).map((name) => ({ rule: 'unusedParameter' as const, name })),
    ...muchLonger(content.steps.length, neighbours),
  ];
  return found.filter((look) => !off.includes(look.rule));
}

/** A step never changes, and while one of many is written the others need not be read again. */
const known = new WeakMap<PlainStep, readonly Look[]>();

function looksAtStep(step: PlainStep): readonly Look[] {
  const before = known.get(step);
  if (before !== undefined) return before;
  const found = [...severalActions(step), ...hiddenExpectation(step), ...vagueWording(step)];
  known.set(step, found);
  return found;
}

const VERBS =
  'add|adjust|answer|append|apply|approve|assign|attach|call|cancel|change|choose|clear|click|close|complete|confirm|connect|copy|correct|create|decline|delete|deselect|disconnect|drag|edit|enter|export|fill|filter|find|follow|give|go|import|insert|leave|load|lodge|log|make|mark|move|navigate|note|open|order|pay|paste|pick|post|press|print|pull|push|put|read|record|register|reject|reload|remove|rename|replace|request|reset|return|run|save|scan|scroll|search|select|send|set|sign|sort|start|stop|submit|switch|take|tap|tick|turn|type|unplug|untick|upload|wait|withdraw|write';

const BEGINS = new RegExp(`^(?:${VERBS})\\b`, 'i');
const JOINT = new RegExp(`(?:[.;]\\s+|,?\\s+(?:and then|and|then)\\s+|,\\s+)(?=(?:then\\s+)?(?:${VERBS})\\b)`, 'gi');

/** Longer texts are not looked into: nobody splits them by a click. */
const LONGEST = 2_000;

function severalActions({ id, action }: PlainStep): Look[] {
  if (action.length > LONGEST || !BEGINS.test(action.trim())) return [];
  const actions = cutAtJoints(action.trim()).map((part) => capital(part.replace(/^then\s+/i, '').replace(/[.;,\s]+$/, ''))).filter((part) => part !== '');
  return actions.length > 1 ? [{ rule: 'severalActions', step: id, actions }] : [];
}

function cutAtJoints(text: string): string[] {
  const parts: string[] = [];
  let at = 0;
  for (const joint of masked(text).matchAll(JOINT)) {
    parts.push(text.slice(at, joint.index));
    at = joint.index + joint[0].length;
  }
  return [...parts, text.slice(at)];
}

const CHECKS = /(?:^|[.;,]\s+|,?\s+and\s+)(?:then\s+)?(?:check|verify|confirm|make sure|ensure|see|observe|assert|expect)\s+(?:that|whether|if)\s+/i;
const DEMANDS = /(?:^|[.;]\s+)(?=[^.;]*\b(?:should|must|(?:is|are)\s+(?:shown|displayed|refused|rejected|accepted|saved|visible|greyed out)|appears?)\b)/i;

function hiddenExpectation({ id, action, expected }: PlainStep): Look[] {
  if (action.length > LONGEST) return [];
  const check = CHECKS.exec(action);
  const found = check ?? DEMANDS.exec(action);
  if (found === null) return [];
  const rest = action.slice(found.index + found[0].length).replace(/[.;\s]+$/, '');
  // "Enter what must be paid" is something to be done.
  if (rest === '' || (check === null && BEGINS.test(rest))) return [];
  const mended = { action: action.slice(0, found.index).trim(), expected: [expected.replace(/[.;\s]+$/, ''), capital(rest)].filter((t) => t !== '').join('. ') };
  return [{ rule: 'hiddenExpectation', step: id, words: rest, mended }];
}

function vagueWording({ id, action, expected }: PlainStep): Look[] {
  const words = [action, expected].flatMap((text) => vagueWords(masked(text)));
  return [...new Set(words.map((w) => w.toLowerCase()))].map((found) => ({ rule: 'vagueWording', step: id, words: found }));
}

/** Names between angle brackets are no wording: signs that are no letters stand in their place, as many. */
function masked(text: string): string {
  return parseParameterText(text).reduce((all, part) => (part.kind === 'text' ? all : all.slice(0, part.from) + '▪'.repeat(part.to - part.from) + all.slice(part.to)), text);
}

/** With fewer neighbours nothing can be said of what is usual. */
const FEWEST_NEIGHBOURS = 4;
const LEAST_MORE = 8;

function muchLonger(steps: number, neighbours: readonly number[]): Look[] {
  if (neighbours.length < FEWEST_NEIGHBOURS) return [];
  const sorted = neighbours.toSorted((a, b) => a - b);
  const usual = sorted[Math.floor(sorted.length / 2)] ?? 0;
  return steps > 2 * usual && steps - usual >= LEAST_MORE ? [{ rule: 'muchLonger', steps, usual }] : [];
}

/** The steps with one that does several things cut up; what is expected stays with the last. */
export function withActionsSplit(content: CaseContent, step: StepId, actions: readonly string[], newId: () => StepId): CaseContent {
  return {
    ...content,
    steps: content.steps.flatMap((s) => {
      if (s.id !== step || isUse(s)) return [s];
      // The last keeps the id: links that its expected result speaks for go on doing so.
      return actions.map((action, i) => (i === actions.length - 1 ? { ...s, action } : { ...s, id: newId(), action, expected: '', attachments: [] }));
    }),
  };
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
