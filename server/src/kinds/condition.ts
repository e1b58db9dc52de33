import { artefactId } from '@caderno/core/artefacts';
import { MODEL_KINDS, POLARITIES } from '@caderno/core/conditions';
import { requirementIdSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

// A server of the build before writes no depths while the servers are replaced one by one.
const facts = z.object({ model: z.enum(MODEL_KINDS), polarity: z.enum(POLARITIES), requirements: z.array(requirementIdSchema), depths: z.array(z.string()).default([]) });

export const storedCondition: StoredKind<'condition', z.infer<typeof facts>> = {
  facts,
  noFacts: { model: 'plain', polarity: 'both', requirements: [], depths: [] },
  columns: ({ title, risk, model, polarity, requirements, depths }) => ({ title, module: '', risk, priority: null, owner: '', tags: [], facts: { model: model.kind, polarity, requirements: requirements.map((r) => r.id), depths: [...depths] } }),
  summary: (head, { number, risk }, own) => ({ kind: 'condition', id: artefactId('condition', number), ...head, risk, ...own }),
};
