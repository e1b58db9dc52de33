import { DEFAULT_MOST_ITEMS, combinationProblems, countItems, coverageItems, fieldId, quoted, readConstraint, type CombinationModel, type Strength } from '../conditions/index.ts';
import { CombinationRows } from '../coverage/index.ts';
import type { Configuration } from '../shared/index.ts';
import { factorOf, type Environment, type EnvironmentFactor } from './environment.ts';
import { rulesOf, type RuleProblem } from './environmentRules.ts';

/** How much factors of the environment are combined with each other. */
export const CONFIGURATION_STRENGTHS = ['eachChoice', 'pairs', 'threeWise', 'all'] as const satisfies readonly Strength[];

/** Which factors are combined, which of their values, and how much. */
export interface ConfigurationsAsked {
  readonly factors: readonly { readonly id: EnvironmentFactor['id']; readonly values: readonly string[] }[];
  readonly strength: (typeof CONFIGURATION_STRENGTHS)[number];
}

/** Why none can be made. */
export type ConfigurationProblem =
  | { readonly code: 'no_values'; readonly factor: string }
  | { readonly code: 'factor_twice'; readonly factor: string }
  | ({ readonly code: 'rule_misread' } & RuleProblem)
  | { readonly code: 'rule_too_tangled'; readonly rule: string }
  | { readonly code: 'nothing_possible' }
  /** The rules allow no configuration with it among the values that were chosen. */
  | { readonly code: 'value_impossible'; readonly factor: string; readonly value: string };

/** `aside`: rules that do not count, as they are about factors that were not chosen. `isFound`: of each configuration, whether the project has it already. */
export type MadeConfigurations =
  | { readonly kind: 'made'; readonly configurations: readonly Configuration[]; readonly isFound: readonly boolean[]; readonly combinations: number; readonly aside: readonly string[] }
  | { readonly kind: 'tooMany'; readonly combinations: bigint; readonly most: number }
  | { readonly kind: 'problems'; readonly problems: readonly ConfigurationProblem[] };

/** How many steps they are improved: the same input makes the same configurations. */
const STEPS = 4_000;

/**
 * As few configurations as are found in some steps, in which every combination of the asked strength stands that the rules of the project allow.
 * One that is `there` with the same factors and values is taken as it is; the others get an id and the name of their values. Nothing is by chance.
 * Refused when there are more combinations than `most`. Combinatorial testing: ISO/IEC/IEEE 29119-4, 5.2.5.
 */
export function madeConfigurations(environment: Environment, asked: ConfigurationsAsked, there: readonly Configuration[], newId: () => string, most = DEFAULT_MOST_ITEMS): MadeConfigurations {
  const { factors, counting, aside } = chosenFactors(environment, asked);
  const model = modelOf(factors, [...counting, ...narrowed(factors, asked)], asked.strength);
  const problems = problemsOf(model, counting, asked);
  if (factors.length === 0 || problems.length > 0) return { kind: 'problems', problems };
  const combinations = countItems(model);
  if (combinations > BigInt(most)) return { kind: 'tooMany', combinations, most };
  const items = coverageItems({ title: '', polarity: 'both', model }, most);
  const search = new CombinationRows(model, new Set(items.map((item) => item.key)));
  search.improve(STEPS);
  const made = search.made.rows.map(({ values }) => factors.map((f) => ({ name: f.name, value: values.find((v) => v.field === fieldId(f.id))?.cell ?? '' })));
  const found = made.map((own) => there.find((c) => isSame(c.factors, own)));
  const configurations = made.map((own, i) => found[i] ?? { id: newId(), name: own.map((f) => f.value).join(', '), factors: own });
  return { kind: 'made', configurations, isFound: found.map((c) => c !== undefined), combinations: items.length, aside };
}

/** The factors that are combined, the rules about nothing but these, and those about others too. */
function chosenFactors({ factors: all, ...environment }: Environment, asked: ConfigurationsAsked): { readonly factors: readonly EnvironmentFactor[]; readonly counting: readonly string[]; readonly aside: readonly string[] } {
  const factors = all.filter((f) => asked.factors.some((a) => a.id === f.id));
  const rules = rulesOf(environment);
  const isAside = (rule: string): boolean => {
    const read = readConstraint(rule, factors.map(factorOf));
    return read.kind === 'problem' && read.problem.code !== 'value_unknown' && readConstraint(rule, all.map(factorOf)).kind === 'condition';
  };
  return { factors, counting: rules.filter((rule) => !isAside(rule)), aside: rules.filter(isAside) };
}

/** Values that were not chosen stay known, so that rules about them can be read; they are excluded. */
function narrowed(factors: readonly EnvironmentFactor[], asked: ConfigurationsAsked): string[] {
  return factors.flatMap(({ id, name, values }) => {
    const chosen = values.filter((value) => asked.factors.find((a) => a.id === id)?.values.includes(value) === true);
    return chosen.length === values.length || chosen.length === 0 ? [] : [`${quoted(name)} in {${chosen.map(quoted).join(', ')}}`];
  });
}

function modelOf(factors: readonly EnvironmentFactor[], rules: readonly string[], strength: Strength): CombinationModel {
  return { kind: 'combination', factors: factors.map(factorOf), constraints: rules.map((text, i) => ({ id: String(i), text })), strength, groups: [], seed: 1 };
}

function problemsOf(model: CombinationModel, rules: readonly string[], asked: ConfigurationsAsked): ConfigurationProblem[] {
  const nameOf = (id: string): string => model.factors.find((f) => f.id === id)?.name ?? id;
  const isChosen = (id: string, value: string): boolean => asked.factors.find((a) => a.id === id)?.values.includes(value) === true;
  const without = model.factors.filter((f) => !f.values.some((v) => isChosen(f.id, v.value))).map((f): ConfigurationProblem => ({ code: 'no_values', factor: f.name }));
  const others = combinationProblems(model).flatMap((problem): ConfigurationProblem[] => {
    switch (problem.code) {
      // The last two are never found here: values that were not ticked are excluded by a rule, and a list has each value once.
      case 'no_factors':
      case 'no_valid_value':
      case 'value_twice':
        return [];
      case 'factor_twice':
        return [{ code: 'factor_twice', factor: problem.name }];
      case 'constraint_misread':
        return [{ code: 'rule_misread', rule: rules[Number(problem.constraint)] ?? '', problem: problem.problem }];
      case 'constraint_too_tangled':
        return [{ code: 'rule_too_tangled', rule: rules[Number(problem.constraint)] ?? '' }];
      case 'nothing_possible':
        return [problem];
      case 'value_impossible':
        return isChosen(problem.factor, problem.value) ? [{ code: 'value_impossible', factor: nameOf(problem.factor), value: problem.value }] : [];
    }
  });
  return [...without, ...others];
}

/** In whatever order they are told. */
function isSame(some: Configuration['factors'], others: Configuration['factors']): boolean {
  return some.length === others.length && others.every(({ name, value }) => some.some((f) => f.name === name && f.value === value));
}
