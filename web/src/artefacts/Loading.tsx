import { failureSentence } from '../api/index.ts';
import { Empty } from '../look/index.ts';

/** What stands on a page while its artefact is read, or when it cannot be. */
export function Loading({ error }: { readonly error: unknown }) {
  if (error === null) return <p className="p-7 text-ink2">Reading …</p>;
  return <Empty title="This cannot be shown">{failureSentence(error)}</Empty>;
}
