import type { ConditionId } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Cover, Parameter, Row } from '../cases/index.ts';

/** A condition that rows of a data set are made for, and which columns carry its fields: a case that takes the rows carries them so. */
export type Served = Pick<Cover, 'seenVersion' | 'fields' | 'outcome'> & { readonly id: ConditionId };

/** What a version of a data set holds: a table that many cases take their rows from. */
export interface DataSetContent {
  readonly title: string;
  /** What its rows are for. */
  readonly purpose: string;
  /** The columns. */
  readonly parameters: readonly Parameter[];
  readonly rows: readonly Row[];
  readonly serves: readonly Served[];
  readonly module: string;
  readonly tags: readonly string[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_DATA_SET: DataSetContent = { title: '', purpose: '', parameters: [], rows: [], serves: [], module: '', tags: [], own: NO_OWN };

/** The part whose change makes trace links to it suspect. */
export function dataSetMeaning({ title, purpose, parameters, rows, serves }: DataSetContent): unknown {
  return [title, purpose, parameters, rows, serves.map((s) => [s.id, s.fields])];
}
