import { createStore, del, get, set, type UseStore } from 'idb-keyval';

/** A working text kept in the browser until the server has it. */
export interface LocalDraft {
  readonly base: number;
  readonly baseContent: unknown;
  readonly content: unknown;
  readonly at: string;
}

/** Whose text of what. */
export interface DraftPlace {
  readonly project: string;
  readonly person: string;
  /** The id of an artefact, or `settings`. */
  readonly of: string;
}

let opened: UseStore | null = null;

/** What is put and taken out one after the other happens in that order. */
function drafts(): UseStore {
  opened ??= createStore('caderno', 'drafts');
  return opened;
}

function nameOf({ project, person, of }: DraftPlace): string {
  return `${person}/${project}/${of}`;
}

/** Answers false when the browser's storage is full or forbidden: the draft then lives in this page only. */
export function keepLocally(place: DraftPlace, draft: LocalDraft): Promise<boolean> {
  return within(() => set(nameOf(place), draft, drafts()).then(() => true), false);
}

export function readLocally(place: DraftPlace): Promise<LocalDraft | null> {
  return within(async () => (await get<LocalDraft>(nameOf(place), drafts())) ?? null, null);
}

export async function dropLocally(place: DraftPlace): Promise<void> {
  await within(() => del(nameOf(place), drafts()), undefined);
}

/** A browser may forbid its storage, or have no room: then there is none, and that is no reason to stop. */
async function within<T>(action: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await action();
  } catch (error) {
    if (error instanceof DOMException || typeof indexedDB === 'undefined') return otherwise;
    throw error;
  }
}
