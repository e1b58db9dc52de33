import type { Highs, ModelData } from 'highs';
import type { MostQuestion, MostSolver } from './mostShown.ts';
import type { CoverSolver, SolverQuestion } from './smallestCover.ts';

/** Solves covers by HiGHS (branch and cut), which whoever asks has loaded: that takes a file or an address. */
export function highsSolver(highs: Highs): CoverSolver {
  return (question, better) => {
    const asked = { rows: coverRows(highs, question), costs: question.costs, whole: question.costs.length, known: question.known, seconds: question.seconds };
    const { chosen, dual, isOptimal } = solve(highs, asked, (found, bound) => better({ chosen: found, bound: Math.max(0, bound) }));
    // Ended within less than one of its bound, it has found the best.
    return { chosen, bound: isOptimal ? costOf(question, chosen) : Math.max(0, dual) };
  };
}

/** Solves by HiGHS what most can be shown within a limit. Behind the candidates each group of items has a column: how much of it is shown. */
export function highsMostSolver(highs: Highs): MostSolver {
  return (question, better) => {
    const { costs, weights, known, seconds } = question;
    const candidates = costs.length;
    const worth = [...costs.map(() => 0), ...weights.map((weight) => -weight)];
    const asked = { rows: mostRows(highs, question), costs: worth, whole: candidates, known: [...known, ...shownGroups(question, known).map((group) => candidates + group)], seconds };
    const chosenOf = (columns: readonly number[]): number[] => columns.filter((column) => column < candidates);
    const { chosen, dual, isOptimal } = solve(highs, asked, (found, bound) => better({ chosen: chosenOf(found), bound: -bound }));
    const groups = shownGroups(question, chosenOf(chosen));
    return { chosen: chosenOf(chosen), bound: isOptimal ? groups.reduce((sum, group) => sum + (weights[group] ?? 0), 0) : -dual };
  };
}

interface Rows {
  readonly entries: readonly { readonly columns: readonly number[]; readonly values: readonly number[] }[];
  readonly lower: readonly number[];
  readonly upper: readonly number[];
}

interface Asked {
  readonly rows: Rows;
  readonly costs: readonly number[];
  /** So many columns, the first, are taken whole or not at all. */
  readonly whole: number;
  readonly known: readonly number[];
  readonly seconds: number;
}

/** Costs are whole, so that less than one away from the best is the best. `dual`: nothing costs less than that. */
function solve(highs: Highs, { rows, costs, whole, known, seconds }: Asked, better: (chosen: readonly number[], dual: number) => void): { readonly chosen: readonly number[]; readonly dual: number; readonly isOptimal: boolean } {
  const { callbackType, modelStatus } = highs.constants;
  return highs.withModel(modelOf(highs, rows, costs, whole), (model) => {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 0, mip_abs_gap: 0.999, random_seed: 1 });
    const start = new Float64Array(costs.length);
    for (const column of known) start[column] = 1;
    model.setSolution({ colValue: start });
    let dual = Number.NEGATIVE_INFINITY;
    model.run({
      [callbackType.mipLogging]: ({ data }) => void (dual = Math.max(dual, data.mip_dual_bound ?? dual)),
      [callbackType.mipImprovingSolution]: ({ data }) => {
        dual = Math.max(dual, data.mip_dual_bound ?? dual);
        if (data.mip_solution !== undefined) better(chosenIn(data.mip_solution), dual);
      },
    });
    const said = model.info.get('mip_dual_bound');
    if (typeof said === 'number' && Number.isFinite(said)) dual = Math.max(dual, said);
    return { chosen: chosenIn(model.getSolution().colValue), dual, isOptimal: model.getModelStatus() === modelStatus.optimal };
  });
}

/** One at least of those that show an item; whoever is chosen has what it needs. */
function coverRows(highs: Highs, { shownBy, needs }: SolverQuestion): Rows {
  const entries = [...shownBy.map((showing) => ({ columns: showing, values: showing.map(() => 1) })), ...needs.map(needsRow)];
  return { entries, lower: entries.map((_, i) => (i < shownBy.length ? 1 : 0)), upper: entries.map(() => highs.infinity) };
}

/** No group is shown by more than is chosen of those that show it; whoever is chosen has what it needs; all together stays within the limit. */
function mostRows(highs: Highs, { costs, shownBy, needs, limit }: MostQuestion): Rows {
  const shown = shownBy.map((showing, group) => ({ columns: [...showing, costs.length + group], values: [...showing.map(() => 1), -1] }));
  const entries = [...shown, ...needs.map(needsRow), { columns: costs.map((_, i) => i), values: [...costs] }];
  const last = entries.length - 1;
  return { entries, lower: entries.map((_, i) => (i === last ? -highs.infinity : 0)), upper: entries.map((_, i) => (i === last ? limit : highs.infinity)) };
}

function needsRow([one, needed]: readonly [number, number]): Rows['entries'][number] {
  return { columns: [one, needed], values: [-1, 1] };
}

function modelOf(highs: Highs, { entries, lower, upper }: Rows, costs: readonly number[], whole: number): ModelData {
  const starts: number[] = [];
  const indices: number[] = [];
  const values: number[] = [];
  for (const entry of entries) {
    starts.push(indices.length);
    for (const [i, column] of entry.columns.entries()) {
      indices.push(column);
      values.push(entry.values[i] ?? 0);
    }
  }
  starts.push(indices.length);
  const { integer, continuous } = highs.constants.variableType;
  return {
    numCols: costs.length,
    numRows: entries.length,
    colCost: costs,
    colLower: new Float64Array(costs.length),
    colUpper: new Float64Array(costs.length).fill(1),
    rowLower: Float64Array.from(lower),
    rowUpper: Float64Array.from(upper),
    matrix: { format: 'csr', numRows: entries.length, numCols: costs.length, starts, indices, values },
    integrality: Int32Array.from(costs, (_, column) => (column < whole ? integer : continuous)),
  };
}

function chosenIn(values: ArrayLike<number>): number[] {
  return Array.from(values).flatMap((value, place) => (value > 0.5 ? [place] : []));
}

function costOf({ costs }: SolverQuestion, chosen: readonly number[]): number {
  return chosen.reduce((sum, place) => sum + (costs[place] ?? 0), 0);
}

function shownGroups({ shownBy }: MostQuestion, chosen: readonly number[]): number[] {
  const there = new Set(chosen);
  return shownBy.flatMap((showing, group) => (showing.some((place) => there.has(place)) ? [group] : []));
}
