import { entriesOf, outcomeOf, ruleKey, tableJudge, valuesSelecting, type DecisionTableModel, type ItemKey } from '../conditions/index.ts';
import type { RowsMade } from './rowsMade.ts';

/** A row for each missing rule of a decision table: a row selects one rule, so there are no fewer. */
export function tableRows(model: DecisionTableModel, missing: ReadonlySet<ItemKey>): RowsMade {
  const judge = tableJudge(model);
  const made = judge.rules.flatMap(({ rule, column }, place) => {
    const key = ruleKey(rule);
    if (!missing.has(key)) return [];
    const values = valuesSelecting(judge, place);
    const name = `rule ${column}: ${entriesOf(model, rule)}`.slice(0, 120);
    return [{ key, row: values === null ? null : { name, values, outcome: outcomeOf(model, rule), shows: [key] } }];
  });
  return { rows: made.flatMap((m) => m.row ?? []), unreachable: made.flatMap((m) => (m.row === null ? [m.key] : [])) };
}
