import { combinationJudge, combinationProblems, explainInfeasible, tableProblems, type CombinationModel, type CombinationProblem, type DecisionTableModel, type ExplainedTuple, type TableProblem } from '@caderno/core/conditions';
import { expose } from 'comlink';
import { Receiver, type Parcel } from '../../worker/index.ts';

/** Judges models beside the page: large ones take longer than a keystroke may. */
export interface ModelCheckWorker {
  /** Models of tables in the order in which they were packed. */
  table(model: Parcel): readonly TableProblem[];
  combination(model: CombinationModel): readonly CombinationProblem[];
  /** How many tuples no row can contain, and the first of them with the constraints that exclude them. */
  cannotOccur(model: CombinationModel, explained: number): CannotOccur;
}

export interface CannotOccur {
  readonly count: number;
  readonly first: readonly ExplainedTuple[];
}

const tables = new Receiver<DecisionTableModel>();

const worker: ModelCheckWorker = {
  table: (model) => tableProblems(tables.unpack(model)),
  combination: combinationProblems,
  cannotOccur(model, explained) {
    if (model.constraints.length === 0) return { count: 0, first: [] };
    const judge = combinationJudge(model);
    return { count: judge.infeasible.length, first: explainInfeasible(judge, explained) };
  },
};

expose(worker);
