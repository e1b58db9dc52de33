import type { ArtefactId } from '@caderno/core/artefacts';
import { EMPTY_QUESTION, type QuestionSubject } from '@caderno/core/basis';
import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { useCreate } from './useCreate.ts';

/** Raises a question about something and opens it, its title to be written first. `onRaised`: what is done before it is opened. */
export function useRaiseQuestion(): (about: readonly QuestionSubject[], title: string, text?: string, onRaised?: (id: ArtefactId) => Promise<unknown>) => void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const create = useCreate(project);
  return useCallback(
    (about, title, text = '', onRaised = () => Promise.resolve()) => {
      void create({ kind: 'question', content: { ...EMPTY_QUESTION, title: title.slice(0, 290).toWellFormed(), text, about } }).then(async (id) => {
        if (id === null) return;
        await onRaised(id);
        await navigate(address.artefact(project, id), { state: { made: true } });
      });
    },
    [create, navigate, project],
  );
}
