import type { CaseId } from '../artefacts/index.ts';
import { isPlainStep, parseParameterText, type Argument, type CaseContent, type PlainStep, type Step, type StepId } from '../cases/index.ts';
import { likeness, wordsOf } from './wordsOfSteps.ts';

/** A run of steps in some case that says the same as another run, or nearly. */
export interface FoundRun {
  readonly id: CaseId;
  readonly steps: readonly StepId[];
  /** `same`: word for word, values apart; `near`: most words. */
  readonly kind: 'same' | 'near';
  /** What stands where the run has parameters, if the same. Nothing for those of the same name. */
  readonly arguments: readonly Argument[];
  /** The steps that differ, by their place in the run, as they stand there. */
  readonly differing: readonly { readonly place: number; readonly step: PlainStep }[];
}

const MOST_RUNS_FOUND = 200;

/** How much of the words of two steps must be the same: of each, and of all together. */
const LEAST_OF_A_STEP = 0.5;
const LEAST_OF_ALL = 0.7;

/**
 * The runs in these cases that say the same as a run of plain steps, or nearly, in the order of the cases; runs in one
 * case do not overlap. A parameter of the run stands for any text, the same one wherever it is used.
 */
export function findRuns(cases: Iterable<{ readonly id: CaseId; readonly content: Pick<CaseContent, 'steps'> }>, run: readonly Step[], except: CaseId | null): FoundRun[] {
  if (run.length === 0 || !run.every(isPlainStep)) return [];
  const matcher = new RunMatcher(run);
  const found: FoundRun[] = [];
  for (const { id, content } of cases) {
    if (id === except) continue;
    for (let at = 0; at + run.length <= content.steps.length; ) {
      const match = matcher.match(content.steps, at);
      if (match === null) at += 1;
      else {
        found.push({ id, steps: content.steps.slice(at, at + run.length).map((s) => s.id), ...match });
        if (found.length === MOST_RUNS_FOUND) return found;
        at += run.length;
      }
    }
  }
  return found;
}

/** A text with holes: literal texts, one more than the names of what stands between them. */
interface Pattern {
  readonly names: readonly string[];
  readonly literals: readonly string[];
}

class RunMatcher {
  readonly #run: readonly PlainStep[];
  readonly #patterns: readonly (readonly Pattern[])[];
  readonly #words: readonly (readonly string[])[];

  constructor(run: readonly PlainStep[]) {
    this.#run = run;
    this.#patterns = run.map((s) => [s.action, s.expected].map(patternOf));
    this.#words = run.map(wordsOf);
  }

  match(steps: readonly Step[], at: number): Pick<FoundRun, 'kind' | 'arguments' | 'differing'> | null {
    const theirs = steps.slice(at, at + this.#run.length);
    if (!theirs.every(isPlainStep)) return null;
    const same = this.#valuesOf(theirs);
    if (same !== null) return { kind: 'same', arguments: [...same].flatMap(([id, value]) => (value === `<${id}>` ? [] : [{ id, value }])), differing: [] };
    let sum = 0;
    for (const [i, step] of theirs.entries()) {
      const alike = likeness(this.#words[i] ?? [], wordsOf(step));
      if (alike < LEAST_OF_A_STEP) return null;
      sum += alike;
    }
    if (sum / theirs.length < LEAST_OF_ALL) return null;
    const differing = theirs.flatMap((step, place) => (step.action === this.#run[place]?.action && step.expected === this.#run[place].expected ? [] : [{ place, step }]));
    return { kind: 'near', arguments: [], differing };
  }

  /** What stands in place of each parameter; null when the texts are not the same. */
  #valuesOf(theirs: readonly PlainStep[]): Map<string, string> | null {
    const values = new Map<string, string>();
    for (const [i, step] of theirs.entries()) {
      for (const [k, text] of [step.action, step.expected].entries()) {
        const pattern = this.#patterns[i]?.[k];
        const found = pattern === undefined ? null : filled(pattern, text.trim());
        if (pattern === undefined || found === null) return null;
        for (const [n, name] of pattern.names.entries()) {
          const value = found[n] ?? '';
          if ((values.get(name) ?? value) !== value) return null;
          values.set(name, value);
        }
      }
    }
    return values;
  }
}

function patternOf(text: string): Pattern {
  const names: string[] = [];
  const literals = [''];
  for (const part of parseParameterText(text.trim())) {
    if (part.kind === 'text') literals[literals.length - 1] = part.text;
    else {
      names.push(part.name);
      literals.push('');
    }
  }
  return { names, literals };
}

/** What fills the holes when a text fits: each as short as can be, and not empty. In time linear in the text. */
function filled({ names, literals }: Pattern, text: string): string[] | null {
  const [first = ''] = literals;
  const last = names.length === 0 ? '' : (literals.at(-1) ?? '');
  if (names.length === 0) return text === first ? [] : null;
  if (!text.startsWith(first) || !text.endsWith(last)) return null;
  const values: string[] = [];
  let at = first.length;
  for (const literal of literals.slice(1, -1)) {
    const next = text.indexOf(literal, at + 1);
    if (next < 0) return null;
    values.push(text.slice(at, next));
    at = next + literal.length;
  }
  const end = text.length - last.length;
  return end > at ? [...values, text.slice(at, end)] : null;
}
