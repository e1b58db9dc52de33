import type { WordingMark } from '@caderno/core/basis';
import { useState } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../../frame/index.ts';
import { TextButton } from '../../look/index.ts';
import { MEND_WORDS, RULE_WORD, reasonWords } from './wordingWords.ts';
import type { RequirementId } from '@caderno/core/artefacts';

interface Props {
  readonly marks: readonly WordingMark[];
  readonly dismissed: number;
  /** Absent for readers. */
  readonly onDismiss?: (mark: WordingMark, reason: string) => void;
  readonly onAsk?: (mark: WordingMark) => void;
  readonly onSplit?: () => void;
  readonly onTakeBack?: () => void;
}

/** The weak words of a text, each with its reason and a way to mend it. */
export function WordingNotes({ marks, dismissed, onDismiss, onAsk, onSplit, onTakeBack }: Props) {
  return (
    <>
      {marks.length === 0 && <p>Nothing that could not be tested stands out.</p>}
      <ol aria-label="Weak wording" className="space-y-2 py-1">
        {marks.map((mark) => (
          <Note key={`${mark.rule} ${mark.start}`} mark={mark} {...(onDismiss === undefined ? {} : { onDismiss })} {...(onAsk === undefined ? {} : { onAsk })} {...(onSplit === undefined ? {} : { onSplit })} />
        ))}
      </ol>
      {dismissed > 0 && (
        <p>
          {dismissed} dismissed{onTakeBack !== undefined && <> · <TextButton onClick={onTakeBack}>take back</TextButton></>}
        </p>
      )}
    </>
  );
}

function Note({ mark, onDismiss, onAsk, onSplit }: { readonly mark: WordingMark } & Pick<Props, 'onDismiss' | 'onAsk' | 'onSplit'>) {
  const { project } = useFrame();
  const [dismissing, setDismissing] = useState(false);
  return (
    <li>
      <span className="text-ink decoration-ochre decoration-wavy underline underline-offset-2">{mark.words}</span> <span className="text-ochre-ink">{RULE_WORD[mark.rule]}</span>
      <span className="block">
        {reasonWords(mark)} {MEND_WORDS[mark.rule]}
        {mark.against !== null && (
          <>
            {' '}
            <Link className="underline" to={address.basis(project, mark.against.id as RequirementId)}>
              {mark.against.id}
            </Link>
          </>
        )}
      </span>
      {onDismiss !== undefined && !dismissing && (
        <span className="flex flex-wrap gap-x-2">
          <TextButton onClick={() => setDismissing(true)}>dismiss</TextButton>
          {onAsk !== undefined && <TextButton onClick={() => onAsk(mark)}>ask</TextButton>}
          {onSplit !== undefined && mark.rule === 'severalDemands' && <TextButton onClick={onSplit}>split</TextButton>}
          {mark.rule === 'unknownTerm' && (
            <Link className="min-h-6 underline decoration-rule2 underline-offset-2" to={`${address.glossary(project)}?term=${encodeURIComponent(mark.words)}`}>
              explain
            </Link>
          )}
        </span>
      )}
      {dismissing && onDismiss !== undefined && <Reason words={mark.words} onCancel={() => setDismissing(false)} onGive={(reason) => onDismiss(mark, reason)} />}
    </li>
  );
}

function Reason({ words, onGive, onCancel }: { readonly words: string; readonly onGive: (reason: string) => void; readonly onCancel: () => void }) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="mt-0.5"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') onGive(reason.trim());
      }}
    >
      <input autoFocus required aria-label={`Why “${words}” is fine`} placeholder="Why it is fine" maxLength={300} value={reason} onChange={(e) => setReason(e.target.value)} className="field-boxed w-full !min-h-[26px] !py-0.5 text-ink" />
      <span className="flex gap-2">
        <TextButton type="submit" disabled={reason.trim() === ''}>
          dismiss
        </TextButton>
        <TextButton onClick={onCancel}>not now</TextButton>
      </span>
    </form>
  );
}
