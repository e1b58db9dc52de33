import { LOOK_RULES, type LookRule } from '@caderno/core/cases';
import { Tick } from '../look/index.ts';

interface Props {
  readonly off: readonly LookRule[];
  readonly canEdit: boolean;
  readonly onChange: (off: readonly LookRule[]) => void;
}

const LOOK_WORD: Record<LookRule, readonly [string, string]> = {
  nothingTold: ['Linked, but nobody could tell', 'a condition that is covered by steps or rows without an expected result of their own'],
  noExpectedResult: ['No expected result', 'a case in which no step says what is expected'],
  severalActions: ['Several actions in a step', 'offers to make a step of each'],
  hiddenExpectation: ['An expectation hidden in an action', '“check that …” among what is done; offers to put it after ⇒'],
  vagueWording: ['Vague wording in steps', 'some, quickly, as expected, etc.'],
  unusedParameter: ['Unused parameter', 'declared, and stands in no text'],
  invalidRowUnrefused: ['An invalid row without a refusal', 'the same is expected of it as of a valid row'],
  muchLonger: ['Much longer than its neighbours', 'more than twice the steps usual in its module'],
  alikeCase: ['Cases nearly alike', 'at least four fifths of their steps in common'],
  alikeRun: ['Runs of steps nearly alike', 'three steps or more that stand elsewhere too'],
};

/** What is worth a look in cases; each can be switched off. */
export function LooksEditor({ off, canEdit, onChange }: Props) {
  return (
    <ul className="mt-1 grid grid-cols-2 gap-x-8">
      {LOOK_RULES.map((rule) => (
        <li key={rule} className="border-b border-rule py-1.5">
          <Tick atTop disabled={!canEdit} checked={!off.includes(rule)} onChange={(ticked) => onChange(ticked ? off.filter((r) => r !== rule) : [...off, rule])}>
            <span>
              <span className="font-medium">{LOOK_WORD[rule][0]}</span>
              <span className="block text-xs text-ink2">{LOOK_WORD[rule][1]}</span>
            </span>
          </Tick>
        </li>
      ))}
    </ul>
  );
}
