import type { CombinationModel, CombinationProblem, DecisionTableModel, TableProblem } from '@caderno/core/conditions';
import { wrap, type Remote } from 'comlink';
import { Sender } from '../../worker/index.ts';
import type { CannotOccur, ModelCheckWorker } from './modelCheck.worker.ts';

let shared: Remote<ModelCheckWorker> | null = null;

function worker(): Remote<ModelCheckWorker> {
  shared ??= wrap<ModelCheckWorker>(new Worker(new URL('./modelCheck.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

const tables = new Sender<DecisionTableModel>();

export async function checkTable(model: DecisionTableModel): Promise<readonly TableProblem[]> {
  return worker().table(tables.pack(model));
}

export async function checkCombination(model: CombinationModel): Promise<readonly CombinationProblem[]> {
  return worker().combination(model);
}

/** How many of the combinations that cannot occur are explained one by one. */
export const MOST_EXPLAINED = 40;

export async function findCannotOccur(model: CombinationModel): Promise<CannotOccur> {
  return worker().cannotOccur(model, MOST_EXPLAINED);
}
