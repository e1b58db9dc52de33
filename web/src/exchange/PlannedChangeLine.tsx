import type { ConflictChoice as Choice } from '@caderno/core/exchange';
import { LIMITS } from '@caderno/contract';
import { WordDiff } from '../versions/index.ts';
import { TextArea, Answer } from '../look/index.ts';

interface Conflict<F extends string> {
  readonly field: F;
  readonly base: string;
  readonly mine: string;
  readonly theirs: string;
}

interface Props<F extends string> {
  readonly change: {
    readonly id: string;
    readonly title: string;
    readonly line: number;
    readonly fields: readonly { readonly field: F; readonly from: string; readonly to: string }[];
    readonly conflicts: readonly Conflict<F>[];
    readonly moves?: boolean;
    readonly relations?: boolean;
  };
  readonly wordOf: (field: F) => string;
  /** The name of the choice between the two sides of a field. */
  readonly keyOf: (field: F) => string;
  readonly choices: Readonly<Record<string, Choice>>;
  readonly onChoose: (key: string, choice: Choice) => void;
}

/** One artefact the file would change, field by field; where both sides changed, both are shown. */
export function PlannedChangeLine<F extends string>({ change, wordOf, keyOf, choices, onChoose }: Props<F>) {
  return (
    <li className="border-b border-rule py-1.5 text-sm">
      <div>
        <span className="font-mono text-xs text-ink2">{change.id}</span> <span className="font-medium">{change.title}</span> <span className="text-xs text-ink2">line {change.line}</span>
      </div>
      {change.fields.map(({ field, from, to }) => (
        <div key={field} className="flex gap-3 pl-9">
          <span className="w-24 shrink-0 text-xs leading-5 text-ink2">{wordOf(field)}</span>
          <Words from={from} to={to} />
        </div>
      ))}
      {change.conflicts.map((conflict) => (
        <ConflictChoice key={conflict.field} id={change.id} word={wordOf(conflict.field)} name={keyOf(conflict.field)} conflict={conflict} choice={choices[keyOf(conflict.field)]} onChoose={(side) => onChoose(keyOf(conflict.field), side)} />
      ))}
      {change.moves === true && <div className="pl-9 text-xs text-ink2">stands below another requirement in the file</div>}
      {change.relations === true && <div className="pl-9 text-xs text-ink2">its relations change</div>}
    </li>
  );
}

function Words({ from, to }: { readonly from: string; readonly to: string }) {
  return (
    <span className="min-w-0 whitespace-pre-wrap break-words">
      <WordDiff from={from} to={to} />
    </span>
  );
}

interface ConflictProps {
  readonly id: string;
  readonly word: string;
  readonly name: string;
  readonly conflict: Pick<Conflict<string>, 'base' | 'mine' | 'theirs'>;
  readonly choice: Choice | undefined;
  readonly onChoose: (choice: Choice) => void;
}

function ConflictChoice({ id, word, name, conflict, choice, onChoose }: ConflictProps) {
  const { base, mine, theirs } = conflict;
  const sides = [['mine', 'here', mine], ['theirs', 'in the file', theirs]] as const;
  return (
    <fieldset className={`my-1 ml-9 rounded-field px-3 py-1.5 ${choice === undefined ? 'bg-ochre-wash' : 'bg-page2'}`}>
      <legend className="sr-only">
        {word} of {id}, changed on both sides
      </legend>
      <div className="text-xs text-ink2">{word}, changed on both sides</div>
      <div className="grid grid-cols-2 gap-4">
        {sides.map(([side, where, value]) => (
          <Answer key={side} atTop name={name} checked={choice === side} onPick={() => onChoose(side)}>
            <span>
              <span className="text-xs text-ink2">{where}</span>
              <span className="block">
                <Words from={base} to={value} />
              </span>
            </span>
          </Answer>
        ))}
      </div>
      <Answer atTop name={name} checked={typeof choice === 'object'} onPick={() => onChoose({ own: theirs })} className="mt-1.5">
        <span className="min-w-0 flex-1">
          <span className="text-xs text-ink2">another text</span>
          {typeof choice === 'object' && (
            <TextArea autoFocus aria-label={`Another text for ${word} of ${id}`} value={choice.own} maxLength={LIMITS.text} rows={2} onChange={(text) => onChoose({ own: text })} className="mt-0.5 block w-full [field-sizing:content]" />
          )}
        </span>
      </Answer>
    </fieldset>
  );
}
