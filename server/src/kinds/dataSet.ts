import { artefactId } from '@caderno/core/artefacts';
import { conditionIdSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ rows: z.int(), parameters: z.array(z.string()), serves: z.array(conditionIdSchema) });

export const storedDataSet: StoredKind<'dataSet', z.infer<typeof facts>> = {
  facts,
  noFacts: { rows: 0, parameters: [], serves: [] },
  columns({ title, module, tags, rows, parameters, serves }) {
    return { title, module, risk: null, priority: null, owner: '', tags: [...tags], facts: { rows: rows.length, parameters: parameters.map((p) => p.name), serves: serves.map((s) => s.id) } };
  },
  summary: (head, { number, tags }, own) => ({ kind: 'dataSet', id: artefactId('dataSet', number), ...head, tags, ...own }),
};
