import { EMPTY_QUESTION, type QuestionSubject } from '@caderno/core/basis';
import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { useCreate } from './useCreate.ts';

/** Raises a question about something and opens it, its title to be written first. */
export function useRaiseQuestion(): (about: readonly QuestionSubject[], title: string) => void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const create = useCreate(project);
  return useCallback(
    (about, title) => {
      void create({ kind: 'question', content: { ...EMPTY_QUESTION, title: title.slice(0, 290), about } }).then(async (id) => {
        if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
      });
    },
    [create, navigate, project],
  );
}
