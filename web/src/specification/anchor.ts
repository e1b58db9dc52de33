import type { ArtefactId } from '@caderno/core/artefacts';

/** Where an artefact stands in the document. */
export function anchorOf(id: ArtefactId): string {
  return `spec-${id}`;
}
