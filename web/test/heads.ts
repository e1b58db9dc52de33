import { artefactId } from '@caderno/core/artefacts';
import type { CaseSummary } from '@caderno/contract';

/** What lists show of a case that says nothing of itself. */
export function caseHead(n: number, more: Partial<CaseSummary> = {}): CaseSummary {
  return {
    kind: 'case', id: artefactId('case', n), title: `Case ${n}`, state: 'draft', version: 1, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {},
    priority: 'medium', tags: [], owner: '', caseKind: 'procedure', execution: 'byHand', steps: 0, expected: 0, rows: 0, dataSet: null, estimate: null, covers: [], ...more,
  };
}
