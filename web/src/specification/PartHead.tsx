import type { SpecifiedArtefact } from '@caderno/core/specification';
import { STATE_WORD } from '../look/index.ts';
import { anchorOf } from './anchor.ts';

/** The title of an artefact, and which version of it this is; `facts`: what is said besides. */
export function PartHead({ of: { id, content, version, state }, facts = [] }: { readonly of: Pick<SpecifiedArtefact, 'id' | 'content' | 'version' | 'state'>; readonly facts?: readonly string[] }) {
  return (
    <header className="spec-keep spec-whole border-b border-rule pb-0.5" id={anchorOf(id)}>
      <h4 className="font-serif text-lg font-semibold leading-6">
        <span className="mr-2 font-mono text-xs font-normal text-ink2">{id}</span>
        {content.title || 'without a title'}
      </h4>
      <p className="text-xs text-ink2">{[`version ${version}`, STATE_WORD[state].toLowerCase(), ...facts.filter((fact) => fact !== '')].join(' · ')}</p>
    </header>
  );
}
