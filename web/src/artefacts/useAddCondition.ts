import type { RequirementId } from '@caderno/core/artefacts';
import { EMPTY_CONDITION, type Anchor, type ConditionContent } from '@caderno/core/conditions';
import { conditionIdSchema } from '@caderno/contract';
import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { useCreate } from './useCreate.ts';

const LONGEST_TITLE_FROM_WORDS = 90;

/** Makes a condition of a requirement, on words of its text or on the whole, and opens it. */
export function useAddCondition(requirement: RequirementId, version: number): (anchor: Anchor | null) => void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const create = useCreate(project);
  return useCallback(
    (anchor) => {
      const content: ConditionContent = {
        ...EMPTY_CONDITION,
        title: anchor === null ? 'New condition' : titleOf(anchor.quote),
        requirements: [{ id: requirement, seenVersion: version, anchor }],
      };
      void create({ kind: 'condition', content }).then(async (id) => {
        const made = conditionIdSchema.safeParse(id);
        if (made.success) await navigate(address.conditions(project, requirement, made.data), { state: { made: true } });
      });
    },
    [create, navigate, project, requirement, version],
  );
}

/** The marked words as a first title: without Markdown's signs, a capital first. */
function titleOf(words: string): string {
  const plain = words.replaceAll(/[*_`#>|]+/g, '').replaceAll(/\s+/g, ' ').trim().slice(0, LONGEST_TITLE_FROM_WORDS);
  return plain.charAt(0).toUpperCase() + plain.slice(1);
}
