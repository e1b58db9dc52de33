/** The name of one of a project's priorities. An artefact keeps the name it was given, also when the project has no such priority any more. */
export type Priority = string;

/** The priorities that a project begins with, the highest first. */
export const FIRST_PRIORITIES: readonly Priority[] = ['high', 'medium', 'low'];

/** What a new artefact begins with: the priority in the middle of the list, the higher of two. */
export function usualPriority(priorities: readonly Priority[]): Priority {
  const usual = priorities[Math.floor((priorities.length - 1) / 2)];
  if (usual === undefined) throw new Error('A project has priorities: expected some, got none');
  return usual;
}

/** The priority of a project that is called so, in whatever capitals; null: none is. */
export function priorityNamed(name: string, priorities: readonly Priority[]): Priority | null {
  const called = name.trim().toLowerCase();
  return priorities.find((priority) => priority.toLowerCase() === called) ?? null;
}
