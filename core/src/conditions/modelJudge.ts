import { combinationItems, combinationJudge, tuplesShown, type CombinationJudge } from './combination/combinationItems.ts';
import type { ConditionContent } from './condition.ts';
import { rulesShown, tableItems, tableJudge, type TableJudge } from './decisionTable/tableEvidence.ts';
import { DEFAULT_MOST_ITEMS } from './itemLimit.ts';
import { PLAIN_ITEM, TECHNIQUE_OF_ITEM, type CoverageItem, type Technique } from './item.ts';
import { countItems, type Model } from './model.ts';
import type { ModelKind } from './modelKind.ts';
import type { FieldValue } from './otherClass.ts';
import { itemsShown, rangeJudge, type RangeJudge } from './rangeEvidence.ts';
import { rangeItems } from './rangeItems.ts';
import { stateItemsShown, stateJudge, type StateJudge, type WalkedEvent } from './stateTransitions/stateEvidence.ts';
import { stateItems } from './stateTransitions/stateItems.ts';
import { initialState, type StateId } from './stateTransitions/stateTransitions.ts';

type Modelled = Pick<ConditionContent, 'title' | 'polarity' | 'model'>;

/** How a model's items come to be shown. */
export type Showing =
  /** By a step whose expected result speaks for the condition. */
  | { readonly kind: 'expectation' }
  /** By the values of a row, given in the order of `carriedFields`; null gives none. Items by place, in a list that the next call may use again. */
  | { readonly kind: 'values'; readonly shown: (values: readonly (FieldValue | null)[]) => readonly number[] }
  /** By the events of a case's steps, from the case's start state (null: the initial one). */
  | { readonly kind: 'path'; readonly shown: (start: StateId | null, events: readonly WalkedEvent[]) => readonly number[] }
  /** The model has more items than the project allows; none is made, and nothing shows them. */
  | { readonly kind: 'refused'; readonly items: bigint; readonly most: number };

/** A condition's model made ready to judge many cases. Items are named by their place; they are made when asked for. */
export class ModelJudge {
  readonly showing: Showing;
  /** The technique of each item, by place. */
  readonly techniques: readonly Technique[];
  readonly #make: () => CoverageItem[];
  #items: readonly CoverageItem[] | null = null;

  /** `mostItems`: a model with more is refused and counts as one item that nothing shows. */
  constructor(condition: Modelled, mostItems: number) {
    const count = countItems(condition.model);
    const { showing, techniques, make } = count > BigInt(mostItems) ? refused(condition, count, mostItems) : ready(condition);
    this.showing = showing;
    this.techniques = techniques;
    this.#make = make;
  }

  get size(): number {
    return this.techniques.length;
  }

  /** All coverage items, left out ones included, numbered from 1. */
  get items(): readonly CoverageItem[] {
    this.#items ??= this.#make();
    return this.#items;
  }
}

/** All coverage items of a condition, left out ones included, numbered from 1. */
export function coverageItems(condition: Modelled, mostItems = DEFAULT_MOST_ITEMS): readonly CoverageItem[] {
  return new ModelJudge(condition, mostItems).items;
}

interface Ready {
  readonly showing: Showing;
  readonly techniques: readonly Technique[];
  readonly make: () => CoverageItem[];
}

function ready(condition: Modelled): Ready {
  const { model } = condition;
  switch (model.kind) {
    case 'plain':
      return { showing: { kind: 'expectation' }, techniques: ['plain'], make: () => [wholeItem(condition)] };
    case 'valueRanges':
      return readyRanges(rangeJudge(model));
    case 'decisionTable':
      return readyTable(tableJudge(model));
    case 'stateTransitions':
      return readyStates(stateJudge(model));
    case 'combination':
      return readyCombination(combinationJudge(model));
  }
}

function readyRanges(judge: RangeJudge): Ready {
  return {
    showing: { kind: 'values', shown: (values) => itemsShown(judge, values) },
    techniques: judge.kinds.map((kind) => TECHNIQUE_OF_ITEM[kind]),
    make: () => rangeItems(judge.model),
  };
}

function readyTable(judge: TableJudge): Ready {
  return {
    showing: { kind: 'values', shown: (values) => rulesShown(judge, values) },
    techniques: judge.rules.map(() => 'decisionTable' as const),
    make: () => tableItems(judge.model),
  };
}

function readyStates(judge: StateJudge): Ready {
  const shown = (start: StateId | null, events: readonly WalkedEvent[]): readonly number[] => {
    const from = start ?? initialState(judge.model)?.id;
    return from === undefined ? [] : stateItemsShown(judge, from, events);
  };
  return { showing: { kind: 'path', shown }, techniques: [...judge.places].map(() => 'stateTransitions' as const), make: () => stateItems(judge.model) };
}

function readyCombination(judge: CombinationJudge): Ready {
  const again: number[] = [];
  return {
    showing: { kind: 'values', shown: (values) => tuplesShown(judge, values, again) },
    techniques: judge.tuples.map(() => 'combination' as const),
    make: () => combinationItems(judge),
  };
}

const TECHNIQUE_OF_MODEL: Record<ModelKind, Technique> = {
  plain: 'plain',
  valueRanges: 'partitions',
  decisionTable: 'decisionTable',
  stateTransitions: 'stateTransitions',
  combination: 'combination',
};

function refused(condition: Modelled, items: bigint, most: number): Ready {
  const technique = TECHNIQUE_OF_MODEL[(condition.model satisfies Model).kind];
  const make = (): CoverageItem[] => [{ ...wholeItem(condition), extent: `${items} items, over the project’s limit of ${most}` }];
  return { showing: { kind: 'refused', items, most }, techniques: [technique], make };
}

function wholeItem({ title, polarity }: Modelled): CoverageItem {
  return { key: PLAIN_ITEM, number: 1, kind: 'condition', field: null, name: title, extent: '', sample: null, valid: polarity !== 'negative', outcome: '' };
}
