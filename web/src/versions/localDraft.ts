import type { ArtefactId } from '@caderno/core/artefacts';

/** A working text kept in the browser until the server has it. */
export interface LocalDraft {
  readonly base: number;
  readonly baseContent: unknown;
  readonly content: unknown;
  readonly at: string;
}

function nameOf(project: string, person: string, id: ArtefactId): string {
  return `caderno-draft/${person}/${project}/${id}`;
}

/** Answers false when the browser's storage is full or forbidden: the draft then lives in this page only. */
export function keepLocally(project: string, person: string, id: ArtefactId, draft: LocalDraft): boolean {
  try {
    localStorage.setItem(nameOf(project, person, id), JSON.stringify(draft));
    return true;
  } catch (error) {
    if (error instanceof DOMException) return false;
    throw error;
  }
}

export function readLocally(project: string, person: string, id: ArtefactId): LocalDraft | null {
  const text = localStorage.getItem(nameOf(project, person, id));
  return text === null ? null : (JSON.parse(text) as LocalDraft);
}

export function dropLocally(project: string, person: string, id: ArtefactId): void {
  localStorage.removeItem(nameOf(project, person, id));
}
