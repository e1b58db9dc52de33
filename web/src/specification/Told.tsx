import type { ArtefactId } from '@caderno/core/artefacts';
import { createContext, useContext } from 'react';
import { anchorOf } from './anchor.ts';

/** The titles of all that is in the document, by their ids. */
export const Told = createContext<ReadonlyMap<ArtefactId, string>>(new Map());

/** Names what is in the document, with its page; what is not in it by its id alone. */
export function Named({ id }: { readonly id: ArtefactId }) {
  const title = useContext(Told).get(id);
  if (title === undefined) return <span className="font-mono text-xs">{id}</span>;
  return (
    <a href={`#${anchorOf(id)}`} className="spec-page">
      <span className="font-mono text-xs">{id}</span> {title}
    </a>
  );
}

/** Names in a sentence. */
export function NamedAll({ ids }: { readonly ids: readonly ArtefactId[] }) {
  return ids.map((id, i) => (
    <span key={id}>
      {i > 0 && '; '}
      <Named id={id} />
    </span>
  ));
}
