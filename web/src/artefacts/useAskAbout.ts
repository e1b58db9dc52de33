import type { RequirementId } from '@caderno/core/artefacts';
import type { QuestionSubject } from '@caderno/core/basis';
import { placeAnchor, type Anchor } from '@caderno/core/conditions';
import { useCallback } from 'react';
import { call } from '../api/index.ts';
import { useRaiseQuestion } from './useRaiseQuestion.ts';
import { useFrame } from '../frame/index.ts';

/**
 * Raises a question about words of a requirement. What hangs on these very words waits for the answer; the person
 * can change that on the question's page.
 */
export function useAskAbout(id: RequirementId, text: string): (start: number, end: number) => void {
  const { project } = useFrame();
  const raise = useRaiseQuestion();
  return useCallback(
    (start, end) => {
      const words = text.slice(start, end).replaceAll(/\s+/g, ' ').trim();
      const touches = (anchor: Anchor | null): boolean => {
        const place = anchor === null ? null : placeAnchor(text, anchor);
        return place?.kind === 'found' && place.start < end && place.end > start;
      };
      void call('readDesign', { params: { project }, query: { requirement: id } }).then(({ conditions }) => {
        const touched = conditions.filter((c) => c.content.requirements.some((r) => r.id === id && touches(r.anchor)));
        const about: QuestionSubject[] = [{ kind: 'requirement', id, words, holds: false }, ...touched.map((c): QuestionSubject => ({ kind: 'condition', id: c.id, items: [], holds: true }))];
        raise(about, `What does “${words.slice(0, 200)}” mean?`);
      });
    },
    [id, project, raise, text],
  );
}
