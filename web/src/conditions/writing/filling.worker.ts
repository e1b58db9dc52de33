import type { ConditionContent, ItemKey } from '@caderno/core/conditions';
import { CombinationRows, fillGap, type Filling, type GapFilling } from '@caderno/core/coverage';
import { expose } from 'comlink';

/** What is made so far; `done`: nothing better can be made, or this kind of model needs no search. */
export interface FillingSoFar {
  readonly filling: GapFilling;
  readonly done: boolean;
  readonly steps: number;
}

/** Makes rows and paths beside the page. One filling at a time. */
export interface FillingWorker {
  begin(content: ConditionContent, items: readonly ItemKey[], how: Filling, mostItems: number): FillingSoFar;
  /** Goes on looking for fewer rows for some steps. */
  improve(steps: number): FillingSoFar;
}

let search: { readonly rows: CombinationRows; readonly filling: GapFilling } | null = null;

const worker: FillingWorker = {
  begin(content, items, how, mostItems) {
    search = null;
    if (content.model.kind !== 'combination' || how !== 'fewest') return { filling: fillGap(content, items, how, mostItems), done: true, steps: 0 };
    const empty: GapFilling = { rows: [], paths: [], expectations: [], unreachable: [] };
    search = { rows: new CombinationRows(content.model, new Set(items)), filling: empty };
    return soFar(search);
  },
  improve(steps) {
    if (search === null) throw new Error('A search is improved after it has begun');
    search.rows.improve(steps);
    return soFar(search);
  },
};

function soFar({ rows, filling }: NonNullable<typeof search>): FillingSoFar {
  const { smallest, steps, rows: count } = rows.progress;
  return { filling: { ...filling, ...rows.made }, done: smallest || count === 0, steps };
}

expose(worker);
