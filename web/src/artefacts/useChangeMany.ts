import type { ChangeMany, ChangedMany, LeftReason } from '@caderno/contract';
import { useCallback } from 'react';
import { toast } from 'sonner';
import { call, foreseenOf, tellFailure, useForeseen } from '../api/index.ts';

const LEFT_WORDS: Record<LeftReason, string> = { absent: 'no longer there', broken: 'cannot be read', otherKind: 'has no such thing', changedMeanwhile: 'changed meanwhile', untitled: 'would be without a title', tooLong: 'would have a text that is too long', kept: 'in a module that others keep' };
const MOST_NAMED = 5;

/** Does the same with many artefacts as one command, which lists show at once; says what was left as it is, and why. Answers null when it was refused. */
export function useChangeMany(project: string): (order: ChangeMany) => Promise<ChangedMany | null> {
  const foreseen = useForeseen(project);
  return useCallback(
    async (order) => {
      try {
        const changed = await foreseen(foreseenOf(order), () => call('changeMany', { params: { project }, body: order }, { commandId: crypto.randomUUID() }));
        if (changed.left.length > 0) toast.warning(leftSentence(changed.left), { duration: 9000 });
        return changed;
      } catch (error) {
        tellFailure(error);
        return null;
      }
    },
    [foreseen, project],
  );
}

/** `Left as they are: C-3 (cannot be read), and 12 more.` */
export function leftSentence(left: ChangedMany['left']): string {
  const named = left.slice(0, MOST_NAMED).map(({ id, reason }) => `${id} (${LEFT_WORDS[reason]})`);
  const more = left.length - named.length;
  return `Left as ${left.length === 1 ? 'it is' : 'they are'}: ${named.join(', ')}${more > 0 ? `, and ${more} more` : ''}.`;
}
