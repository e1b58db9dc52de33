import type { SharedUse, Written } from '@caderno/core/cases';
import { putBack } from '@caderno/core/shared';
import { useCallback } from 'react';
import { toast } from 'sonner';
import { newStepId, type StepsEdit } from './stepEdits.ts';
import type { StepsOpened } from './useOpened.ts';

/** Puts shared steps back as plain steps in place of one use; others are not touched. */
export function usePutBack(content: Written, opened: StepsOpened, update: (edit: StepsEdit) => void): (use: SharedUse) => void {
  return useCallback(
    (use) => {
      const used = opened.usedOf(use);
      if (used?.kind !== 'shared') return;
      const ids = Array.from({ length: used.content.steps.length + used.content.parameters.length }, newStepId);
      // The same ids at every run of the update, which may be called twice.
      const put = <W extends Written>(to: W) => {
        let next = 0;
        return putBack(to, use, used.content, opened.library, () => ids[next++] ?? newStepId());
      };
      const tried = put(content);
      if (tried.kind === 'hindered') {
        toast.error(`${tried.parameters.map((p) => `<${p}>`).join(', ')} cannot be put back with the same values: give ${tried.parameters.length === 1 ? 'it' : 'them'} a text under “values” first. Nothing was changed.`);
        return;
      }
      update((to) => {
        const done = put(to);
        return done.kind === 'done' ? done.content : to;
      });
    },
    [content, opened, update],
  );
}
