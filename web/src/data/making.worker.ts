import { combinedRows, randomRows, type CombinedRows, type Combining, type RandomColumn, type RandomRows } from '@caderno/core/making';
import type { Row } from '@caderno/core/cases';
import { expose } from 'comlink';

/** Makes rows beside the page. */
export interface MakingWorker {
  combine(combining: Combining, rows: readonly Row[]): CombinedRows;
  byChance(columns: readonly RandomColumn[], count: number, seed: number, rows: readonly Row[]): RandomRows;
}

const newId = (): string => crypto.randomUUID().slice(0, 8);

const worker: MakingWorker = {
  combine: (combining, rows) => combinedRows(combining, rows, newId),
  byChance: (columns, count, seed, rows) => randomRows(columns, count, seed, rows, newId),
};

expose(worker);
