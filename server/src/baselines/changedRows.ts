import { kindOfId, type ArtefactId, type ArtefactKind, type CaseId, type DataSetId, type IdOfKind } from '@caderno/core/artefacts';
import { KINDS, type ContentOfKind } from '@caderno/core/kinds';
import { touchedRows } from '@caderno/core/suites';
import { z } from 'zod';
import { contentOrBroken } from '../artefacts/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';

/** What changed, by id, with the version it had before; null: it was not there, or is asked about as a whole. */
export type Changed = ReadonlyMap<ArtefactId, number | null>;

const isDataSet = (id: ArtefactId): id is DataSetId => kindOfId(id) === 'dataSet';

/** Which rows of cases and data sets changed, each worked out once. */
export class ChangedRows {
  readonly #work: UnitOfWork;
  readonly #projectId: string;
  readonly #changed: Changed;
  readonly #known = new Map<CaseId | DataSetId, readonly string[] | null>();

  constructor(work: UnitOfWork, projectId: string, changed: Changed) {
    this.#work = work;
    this.#projectId = projectId;
    this.#changed = changed;
  }

  /** The rows of a case that changed, its own and those of its data set; null: it is touched otherwise too. */
  async of(id: CaseId, through: readonly ArtefactId[]): Promise<readonly string[] | null> {
    const names: string[] = [];
    for (const one of through) {
      const rows = one === id ? await this.#rowsOf('case', id) : isDataSet(one) ? await this.#rowsOf('dataSet', one) : null;
      if (rows === null) return null;
      names.push(...rows);
    }
    return names;
  }

  async #rowsOf<K extends 'case' | 'dataSet'>(kind: K, id: IdOfKind[K]): Promise<readonly string[] | null> {
    const known = this.#known.get(id);
    if (known !== undefined) return known;
    const earlier = this.#changed.get(id) ?? null;
    const rows = earlier === null ? null : await this.#between(kind, id, earlier);
    this.#known.set(id, rows);
    return rows;
  }

  async #between<K extends 'case' | 'dataSet'>(kind: K, id: IdOfKind[K], earlier: number): Promise<string[] | null> {
    const before = await contentAt(this.#work, this.#projectId, kind, id, earlier);
    const after = await contentAt(this.#work, this.#projectId, kind, id, null);
    return before === null || after === null ? null : touchedRows(before, after, KINDS[kind].meaning);
  }
}

const contentRow = z.object({ schema: z.number(), content: z.unknown() });

/** What an artefact holds at a version, or as it is (null). */
export async function contentAt<K extends ArtefactKind>(work: UnitOfWork, projectId: string, kind: K, id: IdOfKind[K], version: number | null): Promise<ContentOfKind[K] | null> {
  const sql = `SELECT v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = coalesce($4::int, a.head) WHERE a.project_id = $1 AND a.kind = $2 AND a.number = $3`;
  const [row] = await selectRows(work, contentRow, sql, [projectId, kind, Number(id.slice(2)), version]);
  return row === undefined ? null : contentOrBroken(kind, row.schema, row.content);
}
