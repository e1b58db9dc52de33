import { artefactId } from '@caderno/core/artefacts';
import { partsWithRules, pickedMembers } from '@caderno/core/suites';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ folder: z.string(), members: z.int(), rules: z.int() });

export const storedSuite: StoredKind<'suite', z.infer<typeof facts>> = {
  facts,
  noFacts: { folder: '', members: 0, rules: 0 },
  columns(content) {
    const { title, folder, module, owner, tags, entries } = content;
    return { title, module, risk: null, priority: null, owner, tags: [...tags], facts: { folder, members: pickedMembers(content).length, rules: partsWithRules(entries).length } };
  },
  summary: (head, { number, owner, tags }, own) => ({ kind: 'suite', id: artefactId('suite', number), ...head, owner, tags, ...own }),
};
