import type { Priority } from '@caderno/core/artefacts';
import { useListProject } from '../api/index.ts';
import { priorityWord } from '../look/index.ts';

/** The priorities that can be chosen, and the one an artefact has although the project has it no more. */
export function usePriorityChoices(project: string, current: Priority): readonly { readonly value: Priority; readonly name: string }[] {
  const { priorities } = useListProject(project);
  return [...priorities, ...(priorities.includes(current) ? [] : [current])].map((value) => ({ value, name: priorityWord(value) }));
}
