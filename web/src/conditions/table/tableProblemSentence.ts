import { entriesOf, entriesOfBox, type DecisionTableModel, type TableProblem } from '@caderno/core/conditions';
import { countOf } from '../../look/index.ts';

/** What is wrong with a table, in words, rules by their number. */
export function tableProblemSentence(problem: TableProblem, model: DecisionTableModel): string {
  const rule = (id: string): string => `rule ${model.rules.findIndex((r) => r.id === id) + 1}`;
  const condition = (id: string): string => model.conditions.find((c) => c.id === id)?.name ?? '?';
  switch (problem.code) {
    case 'no_conditions':
      return 'There is no condition yet: nothing is decided.';
    case 'no_rules':
      return 'There is no rule yet. Alt M adds one for every combination.';
    case 'values_few':
      return `“${condition(problem.condition)}” has fewer than two values: it decides nothing.`;
    case 'name_twice':
      return `The name “${problem.name}” stands twice.`;
    case 'value_twice':
      return `“${condition(problem.condition)}” has “${problem.value}” twice: a row that says so means either.`;
    case 'combinations_missing': {
      const [first] = problem.boxes;
      const example = first === undefined ? '' : `, as ${entriesOf(model, { entries: entriesOfBox(model, first) })}`;
      return `${countOf(Number(problem.combinations), 'combination')} ${problem.combinations === 1n ? 'is' : 'are'} in no rule${example}.`;
    }
    case 'rules_contradict':
      return `${capital(rule(problem.rules[0]))} and ${rule(problem.rules[1])} do different things where both hold: ${entriesOf(model, { entries: entriesOfBox(model, problem.shared) })}.`;
    case 'rule_contained':
      return `${capital(rule(problem.rule))} adds nothing: ${problem.within === null ? 'rules before it' : rule(problem.within)} hold for all of it and do the same.`;
    case 'rules_mergeable':
      return `${capital(rule(problem.rules[0]))} and ${rule(problem.rules[1])} do the same and differ in “${condition(problem.condition)}” only: they could be one.`;
    case 'rule_impossible':
      return `${capital(rule(problem.rule))} can never apply: all its combinations are declared impossible.`;
    case 'not_judged':
      return 'The table is too large to be judged whole; there may be more to mend than is said here.';
  }
}

/** The rules a problem is marked at. */
export function rulesConcerned(problem: TableProblem): readonly string[] {
  switch (problem.code) {
    case 'rules_contradict':
    case 'rules_mergeable':
      return problem.rules;
    case 'rule_contained':
    case 'rule_impossible':
      return [problem.rule];
    default:
      return [];
  }
}

/** A table with such a problem decides wrongly or not at all; the others are hints. */
export function isGrave(problem: TableProblem): boolean {
  return problem.code !== 'rules_mergeable' && problem.code !== 'rule_contained';
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
