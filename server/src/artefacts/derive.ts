import type { RiskScale } from '@caderno/core/basis';
import type { KindAndContent } from '@caderno/contract';
import { execute, type UnitOfWork } from '../database/index.ts';
import { summaryColumns } from '../kinds/index.ts';
import { rewriteLinks, type Linking } from './links.ts';
import { SEARCH_SQL, searchWords } from './search.ts';

/** What is derived from a content, as a record of {@link DERIVED_RECORD}. */
export function derivedColumns(value: KindAndContent, scale: RiskScale) {
  return { ...summaryColumns(value, scale), words: searchWords(value) };
}

/** The columns of {@link derivedColumns} in a record definition. */
export const DERIVED_RECORD = 'title text, module text, risk text, priority text, owner text, tags jsonb, own jsonb, facts jsonb, words text';

/** Sets what is derived of an artefact from a record `r`. */
export const SET_DERIVED = `title = r.title, module = r.module, risk = r.risk, priority = r.priority, owner = r.owner, tags = ARRAY(SELECT jsonb_array_elements_text(r.tags)), own = r.own, facts = r.facts, search = ${SEARCH_SQL}`;

/** Derives links, search words and summary columns of some artefacts anew from their contents. */
export async function deriveAnew(work: UnitOfWork, projectId: string, scale: RiskScale, some: readonly Linking[]): Promise<void> {
  const records = some.map(({ rowId, value }) => ({ id: rowId, ...derivedColumns(value, scale) }));
  await execute(work, `UPDATE artefact SET ${SET_DERIVED} FROM jsonb_to_recordset($1::jsonb) AS r(id bigint, ${DERIVED_RECORD}) WHERE artefact.id = r.id`, [JSON.stringify(records)]);
  await rewriteLinks(work, projectId, some);
}
