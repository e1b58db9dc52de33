import { textOf, type FeatureContent, type PartId } from './feature.ts';
import { NO_OWN_KINDS, type OwnKinds } from './ownKinds.ts';
import { takenApart, type StepValue } from './phrase.ts';
import { outlineOf, type FeatureOutline, type ReadScenario, type ScenarioStep } from './scenario.ts';

/** Why scenarios cannot be made one outline. */
export type OutlineRefusal = 'too_few' | 'all_same' | 'has_examples' | 'other_rule' | 'other_steps' | 'other_table' | 'other_doc_string';

/** A column of the outline's examples: what differs between the scenarios. */
export interface OutlineColumn {
  readonly name: string;
  /** Of each scenario, as it comes to stand in place of the placeholder. */
  readonly values: readonly string[];
}

/** What scenarios that are the same but for values would be as one outline. */
export interface OutlinePlan {
  /** In the order of the file: the first becomes the outline, and keeps its number. */
  readonly parts: readonly PartId[];
  /** With placeholders: the names of the scenarios are what it says of the rows. */
  readonly name: string;
  readonly columns: readonly OutlineColumn[];
}

/** How the outline is called, and its columns, in the order of the plan. */
export interface OutlineNames {
  readonly name: string;
  readonly columns: readonly string[];
}

/** Something that differs: a value of a step, a cell of its table, or what is left of the names. */
interface Slot {
  readonly of: { readonly kind: 'value'; readonly step: number; readonly value: number } | { readonly kind: 'cell'; readonly step: number; readonly row: number; readonly column: number } | { readonly kind: 'name'; readonly before: string; readonly after: string };
  /** The marks that stay around the placeholder; empty: none, or all of them are in the values. */
  readonly quote: string;
  readonly values: readonly string[];
  readonly wish: string;
}

/** A slot with the column its values stand in: slots that have the same values share one. */
export interface PlacedSlot extends Slot {
  readonly column: number;
}

export interface Worked {
  readonly scenarios: readonly ReadScenario[];
  readonly slots: readonly PlacedSlot[];
  readonly plan: OutlinePlan;
  readonly own: OwnKinds;
}

/** What scenarios of a feature would be as one outline; why not, where they are the same in more than their values. */
export function planOutline(content: FeatureContent, parts: readonly PartId[], own: OwnKinds = NO_OWN_KINDS): OutlinePlan | OutlineRefusal {
  const worked = workOut(content, parts, own);
  return typeof worked === 'string' ? worked : worked.plan;
}

/** What is known of scenarios that can be one outline: what differs, and where it goes. */
export function workOut(content: FeatureContent, parts: readonly PartId[], own: OwnKinds): Worked | OutlineRefusal {
  const wanted = new Set(parts);
  const scenarios = outlineOf(content).scenarios.filter((s) => s.kind === 'scenario' && wanted.has(s.part));
  const refusal = refusalOf(scenarios, own);
  if (refusal !== null) return refusal;
  const worked = placed(textOf(content), scenarios, [...valueSlots(scenarios, own), ...cellSlots(scenarios)], nameSlot(scenarios), own);
  return worked.plan.columns.length === 0 ? 'all_same' : worked;
}

function refusalOf(scenarios: readonly ReadScenario[], own: OwnKinds): OutlineRefusal | null {
  const [first, ...others] = scenarios;
  if (first === undefined || others.length === 0) return 'too_few';
  if (scenarios.some((s) => s.examples.length > 0)) return 'has_examples';
  if (others.some((s) => s.rule !== first.rule)) return 'other_rule';
  if (others.some((s) => phrasesOf(s, own) !== phrasesOf(first, own))) return 'other_steps';
  const pairs = others.flatMap((s) => s.steps.map((step, i): [ScenarioStep | undefined, ScenarioStep] => [first.steps[i], step]));
  if (pairs.some(([a, b]) => shapeOf(a?.table) !== shapeOf(b.table))) return 'other_table';
  return pairs.some(([a, b]) => a?.docString !== b.docString) ? 'other_doc_string' : null;
}

/** What two scenarios have in common that are the same but for values. What goes on with what stands above it says the same. */
function phrasesOf({ steps }: Pick<ReadScenario, 'steps'>, own: OwnKinds): string {
  let kind: string = 'other';
  return steps.map((step) => `${(kind = step.kind === 'and' ? kind : step.kind)} ${takenApart(step.text, own).key}`).join('\n');
}

/** Steps of which one alone says too little to be the same on purpose. */
const FEWEST_STEPS = 2;

/** Scenarios that differ only in values and could be one outline each, in the order of the file. */
export function sameScenarios({ scenarios }: Pick<FeatureOutline, 'scenarios'>, own: OwnKinds = NO_OWN_KINDS): (readonly ReadScenario[])[] {
  const groups = new Map<string, ReadScenario[]>();
  for (const scenario of scenarios) {
    if (scenario.kind !== 'scenario' || scenario.examples.length > 0 || scenario.steps.length < FEWEST_STEPS) continue;
    const key = `${scenario.rule ?? ''}\n${phrasesOf(scenario, own)}`;
    groups.set(key, [...(groups.get(key) ?? []), scenario]);
  }
  return [...groups.values()].filter((group) => group.length > 1);
}

function shapeOf(table: ScenarioStep['table'] | undefined): string {
  return (table ?? []).map((row) => row.length).join(',');
}

function valueSlots(scenarios: readonly ReadScenario[], own: OwnKinds): Slot[] {
  return (scenarios[0]?.steps ?? []).flatMap(({ text }, step) => {
    const apart = scenarios.map((s) => takenApart(s.steps[step]?.text ?? '', own).values);
    return takenApart(text, own).values.flatMap((first, value): Slot[] => {
      const texts = apart.map((values) => values[value]?.text ?? '');
      if (texts.every((t) => t === texts[0])) return [];
      const quote = commonQuote(texts);
      return [{ of: { kind: 'value', step, value }, quote, values: quote === '' ? texts : texts.map((t) => t.slice(1, -1)), wish: wordBeside(text, first) }];
    });
  });
}

/** The marks that all values stand in, and may stay around a placeholder: a cell loses the spaces at its ends. */
function commonQuote(texts: readonly string[]): string {
  const quote = texts[0]?.[0] ?? '';
  return /["']/.test(quote) && texts.every((t) => t.startsWith(quote) && t.endsWith(quote) && t.slice(1, -1).trim() === t.slice(1, -1)) ? quote : '';
}

function cellSlots(scenarios: readonly ReadScenario[]): Slot[] {
  return (scenarios[0]?.steps ?? []).flatMap(({ table }, step) =>
    (table ?? []).flatMap((cells, row) =>
      cells.flatMap((cell, column): Slot[] => {
        const values = scenarios.map((s) => s.steps[step]?.table?.[row]?.[column] ?? '');
        const head = row === 0 ? '' : (table?.[0]?.[column] ?? '');
        return values.every((v) => v === cell) ? [] : [{ of: { kind: 'cell', step, row, column }, quote: '', values, wish: head }];
      }),
    ),
  );
}

/** Words after which a value is called by the word before them. */
const SMALL = new Set(['a', 'an', 'the', 'of', 'to', 'is', 'are', 'at', 'in', 'on', 'for', 'with', 'and', 'by', 'as', 'only', 'has', 'have', 'was', 'were', 'de', 'do', 'da', 'é', 'um', 'uma', 'o', 'os', 'as']);

/** A word that says what a value is: the one before it, past small ones; else the one behind it. */
function wordBeside(text: string, { at, text: value }: StepValue): string {
  const words = (part: string): string[] => part.replace(/"[^"]*"|<[^>]*>/g, ' ').match(/\p{L}[\p{L}-]*/gu) ?? [];
  return words(text.slice(0, at)).findLast((w) => !SMALL.has(w.toLowerCase())) ?? words(text.slice(at + value.length))[0] ?? '';
}

/** What the names have in common, with what is left of each; null: they are all the same. */
function nameSlot(scenarios: readonly ReadScenario[]): Slot | null {
  const names = scenarios.map((s) => s.name);
  if (names.every((n) => n === names[0])) return null;
  const words = names.map((n) => n.split(' '));
  const shortest = Math.min(...words.map((w) => w.length));
  const same = (at: (list: readonly string[]) => string | undefined): boolean => words.every((w) => at(w) === at(words[0] ?? []));
  let [before, after] = [0, 0];
  while (before < shortest && same((w) => w[before])) before += 1;
  while (after < shortest - before && same((w) => w.at(-1 - after))) after += 1;
  const values = words.map((w) => w.slice(before, w.length - after).join(' '));
  const [head, tail] = [words[0]?.slice(0, before).map((w) => `${w} `).join('') ?? '', after === 0 ? '' : ` ${words[0]?.slice(-after).join(' ')}`];
  // A cell has no spaces at its ends: names that differ in where they have some stand whole in theirs.
  const whole = values.some((v) => v === '' || v !== v.trim());
  return { of: { kind: 'name', before: whole ? '' : head, after: whole ? '' : tail }, quote: '', values: whole ? names : values, wish: 'case' };
}

function sameValues(a: Pick<Slot, 'values'>, b: Pick<Slot, 'values'>): boolean {
  return a.values.every((v, i) => v === b.values[i]);
}

/**
 * Slots with their columns, and the columns with names of their own: none that stands between angle brackets anywhere
 * already. What is left of the names is a value of the steps, or else a column in front, as it says what a row is.
 */
function placed(text: string, scenarios: readonly ReadScenario[], slots: readonly Slot[], named: Slot | null, own: OwnKinds): Worked {
  const taken = new Set([...text.matchAll(/<([^<>]*)>/g)].map(([, name]) => name?.toLowerCase()));
  const inSteps = differing(slots);
  const alone = named === null || inSteps.some((s) => sameValues(s, named)) ? [] : [named];
  const columns = [...inSteps, ...alone].map((s): OutlineColumn => ({ name: freeName(s.wish, taken), values: s.values }));
  if (alone.length > 0) columns.unshift(...columns.splice(-1));
  const columnOf = (slot: Slot): number => columns.findIndex((c) => sameValues(c, slot));
  const name = named?.of.kind === 'name' ? `${named.of.before}<${columns[columnOf(named)]?.name ?? ''}>${named.of.after}` : (scenarios[0]?.name ?? '');
  return { scenarios, slots: slots.map((slot) => ({ ...slot, column: columnOf(slot) })), plan: { parts: scenarios.map((s) => s.part), name, columns }, own };
}

/** One slot of those that have the same values. */
function differing(slots: readonly Slot[]): Slot[] {
  return slots.filter((slot, i) => slots.findIndex((s) => sameValues(s, slot)) === i);
}

function freeName(wish: string, taken: Set<string | undefined>): string {
  const plain = wish.replaceAll(/[<>|\\\s]+/g, ' ').trim().toLowerCase() || 'value';
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? plain : `${plain} ${n}`;
    if (taken.has(name)) continue;
    taken.add(name);
    return name;
  }
}
