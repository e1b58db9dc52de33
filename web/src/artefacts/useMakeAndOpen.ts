import type { NewArtefact } from '@caderno/contract';
import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { address } from '../frame/index.ts';
import { useCreate } from './useCreate.ts';

/** Makes an artefact and opens it with the caret in its title. What is refused is told, and one stays where one is. */
export function useMakeAndOpen(project: string): (made: NewArtefact) => Promise<void> {
  const create = useCreate(project);
  const navigate = useNavigate();
  return useCallback(
    async (made) => {
      const id = await create(made);
      if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
    },
    [create, navigate, project],
  );
}
