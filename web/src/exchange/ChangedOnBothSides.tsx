import type { ArtefactKind } from '@caderno/core/artefacts';
import { asJson, type Side } from '@caderno/core/versions';
import type { DesignDraft } from '@caderno/contract';
import { useState } from 'react';
import { useArtefact } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton, countOf, Answer } from '../look/index.ts';
import { WordDiff, pathWords } from '../versions/index.ts';

type Change = DesignDraft['changed'][number];

interface Props {
  readonly change: Change;
  readonly side: Side | undefined;
  readonly onChoose: (side: Side) => void;
}

/** One artefact that was changed at the same places here and in the file: one side is chosen for those places. */
export function ChangedOnBothSides({ change, side, onChoose }: Props) {
  const [open, setOpen] = useState(false);
  const places = countOf(change.both.length, 'place');
  return (
    <li className="border-b border-rule py-2 text-sm">
      <fieldset className={`flex flex-wrap items-baseline gap-x-4 gap-y-1 rounded-field px-2 py-1 ${side === undefined ? 'bg-ochre-wash' : ''}`}>
        <legend className="sr-only">{change.here} {change.title}, changed on both sides</legend>
        <span className="w-12 shrink-0 font-mono text-xs text-ink2">{change.here}</span>
        <span className="min-w-0 flex-1">{change.title}</span>
        <TextButton aria-expanded={open} onClick={() => setOpen(!open)}>{open ? `Hide the ${places}` : `Look at the ${places}`}</TextButton>
        {([['mine', 'keep this project’s'], ['theirs', 'take the file’s']] as const).map(([value, words]) => (
          <Answer key={value} name={change.id} checked={side === value} onPick={() => onChoose(value)} className="cursor-pointer">
            {words}
          </Answer>
        ))}
      </fieldset>
      {open && <Places kind={change.kind} change={change} />}
    </li>
  );
}

function Places({ kind, change }: { readonly kind: ArtefactKind; readonly change: Change }) {
  const { data } = useArtefact(useFrame().project, kind, change.here);
  const contents = data === undefined ? [] : [asJson(data.content)];
  return (
    <dl className="mb-1 ml-14 mt-1">
      {change.both.map(({ path, mine, theirs }) => (
        <div key={path} className="flex gap-3 py-0.5">
          <dt className="w-40 shrink-0 text-xs leading-5 text-ink2">{pathWords(path, contents)}</dt>
          <dd className="min-w-0 whitespace-pre-wrap break-words"><WordDiff from={mine ?? ''} to={theirs ?? ''} /></dd>
        </div>
      ))}
    </dl>
  );
}
