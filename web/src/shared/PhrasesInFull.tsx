import { phraseKey, phrasesDetailed, withValues } from '@caderno/core/scenarios';
import type { SharedContent } from '@caderno/core/shared';
import { Link } from 'react-router';
import { MarginNote } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton } from '../look/index.ts';
import type { Editing } from '../versions/index.ts';

interface Props {
  readonly content: SharedContent;
  readonly canEdit: boolean;
  readonly update: Editing<SharedContent>['update'];
}

/** The phrases of scenarios that these shared steps say in full, with the parameters that take their values. */
export function PhrasesInFull({ content, canEdit, update }: Props) {
  const { project } = useFrame();
  return (
    <MarginNote title="Says in full">
      <ul>
        {phrasesDetailed(content).map(({ phrase, takes }, i) => (
          <li key={phrase} className="flex items-baseline gap-2 py-0.5">
            <span className="min-w-0 flex-1">{withValues(phraseKey(phrase), takes.map((name) => (name === null ? '…' : `<${name}>`)))}</span>
            {canEdit && (
              <TextButton className="shrink-0 text-xs" aria-label={`No longer say in full: ${phrase}`} onClick={() => update((c) => ({ ...c, phrases: c.phrases.filter((_, at) => at !== i) }))}>
                take away
              </TextButton>
            )}
          </li>
        ))}
      </ul>
      <Link className="text-xs underline decoration-rule2 underline-offset-2" to={address.phrases(project)}>
        Phrasebook
      </Link>
    </MarginNote>
  );
}
