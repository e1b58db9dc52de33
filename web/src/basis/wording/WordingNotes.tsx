import type { RequirementId } from '@caderno/core/artefacts';
import type { WordingMark, WordingRule } from '@caderno/core/basis';
import { useState } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../../frame/index.ts';
import { ReasonForm, TextButton, MEND_WORDS, RULE_WORD, reasonWords } from '../../look/index.ts';

interface Props {
  readonly id: RequirementId;
  readonly marks: readonly WordingMark[];
  readonly dismissed: number;
  /** Absent for readers. */
  readonly onDismiss?: (mark: WordingMark, reason: string) => void;
  readonly onAsk?: (mark: WordingMark) => void;
  readonly onSplit?: () => void;
  readonly onTakeBack?: () => void;
}

/** The weak words of a text by rule, with the reason and a way to mend it. */
export function WordingNotes({ id, marks, dismissed, onDismiss, onAsk, onSplit, onTakeBack }: Props) {
  return (
    <>
      {marks.length === 0 && <p>Nothing that could not be tested stands out.</p>}
      <ul aria-label="Weak wording" className="space-y-2.5 py-1">
        {byRule(marks).map(([rule, found]) => (
          <li key={rule}>
            <b className="font-semibold text-ochre-ink">{RULE_WORD[rule]}</b> {found[0] !== undefined && rule !== 'contradictingRange' && reasonWords(found[0], id)} {MEND_WORDS[rule]}
            <ul>
              {found.map((mark) => (
                <Note key={mark.start} id={id} mark={mark} {...(onDismiss === undefined ? {} : { onDismiss })} {...(onAsk === undefined ? {} : { onAsk })} {...(onSplit === undefined ? {} : { onSplit })} />
              ))}
            </ul>
          </li>
        ))}
      </ul>
      {dismissed > 0 && (
        <p>
          {dismissed} dismissed{onTakeBack !== undefined && <> · <TextButton onClick={onTakeBack}>take back</TextButton></>}
        </p>
      )}
    </>
  );
}

/** In the order in which the first of each stands in the text. */
function byRule(marks: readonly WordingMark[]): [WordingRule, WordingMark[]][] {
  const groups = new Map<WordingRule, WordingMark[]>();
  for (const mark of marks) groups.set(mark.rule, [...(groups.get(mark.rule) ?? []), mark]);
  return [...groups];
}

function Note({ id, mark, onDismiss, onAsk, onSplit }: { readonly id: RequirementId; readonly mark: WordingMark } & Pick<Props, 'onDismiss' | 'onAsk' | 'onSplit'>) {
  const { project } = useFrame();
  const [dismissing, setDismissing] = useState(false);
  return (
    <li aria-label={`${mark.words}: ${RULE_WORD[mark.rule]}`} className="flex flex-wrap items-baseline gap-x-2">
      <span className="text-ink decoration-ochre decoration-wavy underline underline-offset-2">{mark.words}</span>
      {mark.rule === 'contradictingRange' && (
        <span>
          {' '}
          {reasonWords(mark, id)}{' '}
          {mark.against !== null && mark.against.id !== id && (
            <Link className="underline" to={address.basis(project, mark.against.id as RequirementId)}>
              {mark.against.id}
            </Link>
          )}
        </span>
      )}
      {onDismiss !== undefined && !dismissing && (
        <span className="ml-auto flex gap-x-2">
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
      {dismissing && onDismiss !== undefined && <ReasonForm label={`Why “${mark.words}” is fine`} placeholder="Why it is fine" action="dismiss" onCancel={() => setDismissing(false)} onGive={(reason) => onDismiss(mark, reason)} />}
    </li>
  );
}
