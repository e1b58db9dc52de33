import { artefactId } from '@caderno/core/artefacts';
import { CASE_KINDS, EXECUTIONS, expects } from '@caderno/core/cases';
import { conditionIdSchema, dataSetIdSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({
  kind: z.enum(CASE_KINDS), execution: z.enum(EXECUTIONS), steps: z.int(), expected: z.int(), rows: z.int(),
  dataSet: dataSetIdSchema.nullable(), estimate: z.number().nullable(), covers: z.array(conditionIdSchema),
});

export const storedCase: StoredKind<'case', z.infer<typeof facts>> = {
  facts,
  noFacts: { kind: 'procedure', execution: 'byHand', steps: 0, expected: 0, rows: 0, dataSet: null, estimate: null, covers: [] },
  columns({ title, kind, execution, module, priority, owner, tags, steps, rows, data, estimate, covers }) {
    const own = { kind, execution, steps: steps.length, expected: steps.filter(expects).length, rows: rows.length, dataSet: data?.set ?? null, estimate, covers: covers.map((c) => c.id) };
    return { title, module, risk: null, priority, owner, tags: [...tags], facts: own };
  },
  summary: (head, { number, priority, owner, tags }, { kind: caseKind, ...counts }) => ({ kind: 'case', id: artefactId('case', number), ...head, priority: priority ?? 'medium', tags, owner, caseKind, ...counts }),
};
