import { artefactId } from '@caderno/core/artefacts';
import { QUESTION_STATUSES } from '@caderno/core/basis';
import { conditionIdSchema, requirementIdSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ status: z.enum(QUESTION_STATUSES), about: z.array(z.union([requirementIdSchema, conditionIdSchema])), answeredAt: z.string() });

export const storedQuestion: StoredKind<'question', z.infer<typeof facts>> = {
  facts,
  noFacts: { status: 'open', about: [], answeredAt: '' },
  columns: ({ title, status, asked, about, answeredAt }) => ({ title, module: '', risk: null, priority: null, owner: asked, tags: [], facts: { status, about: about.map((s) => s.id), answeredAt } }),
  summary: (head, { number, owner }, own) => ({ kind: 'question', id: artefactId('question', number), ...head, asked: owner, ...own }),
};
