import { artefactId } from '@caderno/core/artefacts';
import { phrasesDetailed } from '@caderno/core/scenarios';
import { phrasesDetailedSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ steps: z.int(), parameters: z.array(z.string()), phrases: phrasesDetailedSchema.default([]) });

export const storedShared: StoredKind<'shared', z.infer<typeof facts>> = {
  facts,
  noFacts: { steps: 0, parameters: [], phrases: [] },
  columns: ({ title, module, tags, steps, parameters, phrases }) => ({ title, module, risk: null, priority: null, owner: '', tags: [...tags], facts: { steps: steps.length, parameters: parameters.map((p) => p.name), phrases: phrasesDetailed({ phrases, parameters }).map(({ phrase, takes }) => ({ phrase, takes: [...takes] })) } }),
  summary: (head, { number, tags }, own) => ({ kind: 'shared', id: artefactId('shared', number), ...head, tags, ...own }),
};
