import { artefactId, parseArtefactId } from '@caderno/core/artefacts';
import { REQUIREMENT_TYPES, effectiveRisk } from '@caderno/core/basis';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const facts = z.object({ type: z.enum(REQUIREMENT_TYPES), origin: z.string().default('') });

export const storedRequirement: StoredKind<'requirement', z.infer<typeof facts>> = {
  facts,
  noFacts: { type: 'rule', origin: '' },
  columns(content, scale) {
    const { title, module, priority, type, origin } = content;
    return { title, module, risk: effectiveRisk(scale, content), priority, owner: '', tags: [], facts: { type, origin: origin?.id ?? '' } };
  },
  summary: (head, { number, parent, position, risk, priority }, { type, origin }) => {
    const above = parent === null ? null : parseArtefactId(parent);
    return {
      kind: 'requirement', id: artefactId('requirement', number), ...head,
      parent: above === null ? null : artefactId('requirement', above.number), position, type, sourceId: origin, risk: risk ?? 'medium', priority: priority ?? 'medium',
    };
  },
};
