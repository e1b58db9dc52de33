import type { DecisionTableModel, Rule } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';
import { StandingShape } from '../look/index.ts';
import { ruleText } from './ruleText.ts';

/** So many rules stand side by side on a sheet of A4. */
const RULES_A_BAND = 8;

interface Props {
  readonly model: DecisionTableModel;
  readonly standingOf: (rule: Rule) => Standing | null;
}

/** A decision table on paper: all rules, band below band, each with the names of its lines. */
export function PrintedTable({ model, standingOf }: Props) {
  const { conditions, actions, rules } = model;
  const names = [...conditions.map((c) => c.name), ...actions.map((a) => a.name), ...(rules.some((r) => r.impossible) ? ['cannot occur'] : [])];
  const bands = Array.from({ length: Math.ceil(rules.length / RULES_A_BAND) }, (_, i) => i * RULES_A_BAND);
  return bands.map((first) => (
    <table key={first} aria-label={`Rules from ${first + 1}`} style={{ width: `calc(9rem + ${Math.min(RULES_A_BAND, rules.length - first)} * (100% - 9rem) / ${RULES_A_BAND})` }} className="mt-3 table-fixed border-collapse break-inside-avoid text-xs">
      <thead>
        <tr className="border-b border-ink">
          <th scope="col" className="w-36 px-1.5 py-1 text-left font-normal text-ink2">rule</th>
          {rules.slice(first, first + RULES_A_BAND).map((rule, i) => {
            const standing = standingOf(rule);
            return (
              <th key={rule.id} scope="col" className="px-1 py-1 text-center font-mono font-normal">
                {first + i + 1} {standing !== null && <StandingShape standing={standing} />}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {names.map((name, line) => (
          <tr key={line} className={line === conditions.length - 1 ? 'border-b-[3px] border-double border-ink2' : 'border-b border-rule'}>
            <th scope="row" className="break-words px-1.5 py-1 text-left font-medium">{name}</th>
            {rules.slice(first, first + RULES_A_BAND).map((rule) => (
              <td key={rule.id} className={`break-words border-l border-rule px-1 py-1 text-center ${line >= conditions.length ? 'text-pine' : ''}`}>
                {ruleText(model, rule, line)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  ));
}
