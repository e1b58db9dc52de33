import { tagTest } from '@caderno/core/scenarios';
import type { SuiteRule } from '@caderno/core/suites';
import { LIMITS } from '@caderno/contract';
import { QueryLine } from '../listing/index.ts';
import { Choose, TextButton, locale, TextBox } from '../look/index.ts';

interface Props {
  readonly rule: SuiteRule;
  /** What it adds to what stands in the suite by hand or by an earlier rule; null while that is not known. */
  readonly found: number | null;
  readonly canEdit: boolean;
  /** Null: no rule keeps it any more. */
  readonly onChange: (rule: SuiteRule | null) => void;
}

const OF = [{ value: 'cases', name: 'all cases' }, { value: 'scenarios', name: 'all scenarios' }] as const;
const MEANT = [{ value: 'latest', name: 'as they are' }, { value: 'agreed', name: 'as agreed last' }] as const;

/** What keeps a part filled: a query over cases, or tags of scenarios. Whatever comes to match comes in by itself. */
export function RuleLine({ rule, found, canEdit, onChange }: Props) {
  const { of, asks, pinned } = rule;
  const isUnread = of === 'scenarios' && asks.trim() !== '' && tagTest(asks) === null;
  if (!canEdit) return <p className="pb-1.5 pl-6 text-xs text-ink2">{ruleWords(rule)}</p>;
  return (
    <div role="group" aria-label="Rule of the part" className="flex flex-wrap items-start gap-2 pb-2 pl-6 text-xs text-ink2">
      <span className="pt-1">keeps</span>
      <Choose label="What the rule finds" value={of} options={OF} onChange={(next) => onChange({ ...rule, of: next, asks: '' })} />
      <span className="pt-1">{of === 'cases' ? 'that match' : 'tagged'}</span>
      {of === 'cases' ? (
        <span className="flex min-w-52 flex-1">
          <QueryLine kind="case" query={asks} onQuery={(next) => onChange({ ...rule, asks: next })} />
        </span>
      ) : (
        <TextBox type="search" aria-label="Tags of the rule" aria-invalid={isUnread} placeholder="@smoke and not @slow" maxLength={LIMITS.title} spellCheck={false} value={asks} onChange={(text) => onChange({ ...rule, asks: text })} className="min-w-52 flex-1 font-mono" />
      )}
      <span className="flex items-start gap-2">
        <Choose label="How they are meant" value={pinned ?? 'latest'} options={MEANT} onChange={(next) => onChange({ ...rule, pinned: next === 'agreed' ? 'agreed' : null })} />
        <span className="pt-1" role="status">
          {isUnread ? 'not finished' : asks.trim() === '' ? 'finds nothing yet' : found === null ? '' : `adds ${found.toLocaleString(locale())}`}
        </span>
        <TextButton onClick={() => onChange(null)}>no rule</TextButton>
      </span>
    </div>
  );
}

function ruleWords({ of, asks, pinned }: SuiteRule): string {
  return `kept by a rule: all ${of} ${of === 'cases' ? 'that match' : 'tagged'} ${asks === '' ? 'nothing yet' : asks}${pinned === 'agreed' ? ', as agreed last' : ''}`;
}
