import { artefactId } from '@caderno/core/artefacts';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ steps: z.int(), parameters: z.array(z.string()) });

export const storedShared: StoredKind<'shared', z.infer<typeof facts>> = {
  facts,
  noFacts: { steps: 0, parameters: [] },
  columns: ({ title, module, tags, steps, parameters }) => ({ title, module, risk: null, priority: null, owner: '', tags: [...tags], facts: { steps: steps.length, parameters: parameters.map((p) => p.name) } }),
  summary: (head, { number, tags }, own) => ({ kind: 'shared', id: artefactId('shared', number), ...head, tags, ...own }),
};
