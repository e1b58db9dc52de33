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

/** Answers false when the browser's storage is full, forbidden or does not answer: the draft then lives in this page only. */
export async function keepLocally(place: DraftPlace, draft: LocalDraft): Promise<boolean> {
  return (await within(() => set(nameOf(place), draft, drafts()).then(() => true), false)) === true;
}

/** Null: there is none, or the storage does not answer. Then nothing is put there by this page any more, as it would take the place of what was never read. */
export async function readLocally(place: DraftPlace): Promise<LocalDraft | null> {
  const read = await within(async () => (await get<LocalDraft>(nameOf(place), drafts())) ?? null, null);
  if (read !== SILENT) return read;
  isSilent = true;
  return null;
}

export async function dropLocally(place: DraftPlace): Promise<void> {
  await within(() => del(nameOf(place), drafts()), undefined);
}

/** How long a page waits for the storage of its browser, which at times never answers. */
const PATIENCE_MS = 4_000;
const SILENT = Symbol('the storage does not answer');
let isSilent = false;

/** A browser may forbid its storage, or have no room: then there is none, and that is no reason to stop. */
async function within<T>(action: () => Promise<T>, otherwise: T): Promise<T | typeof SILENT> {
  if (isSilent) return SILENT;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const silence = new Promise<typeof SILENT>((resolve) => (timer = setTimeout(() => resolve(SILENT), PATIENCE_MS)));
  try {
    return await Promise.race([action(), silence]);
  } catch (error) {
    if (error instanceof DOMException || typeof indexedDB === 'undefined') return otherwise;
    throw error;
  } finally {
    clearTimeout(timer);
  }
}
