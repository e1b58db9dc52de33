export { EMPTY_ENVIRONMENT, type Environment, type EnvironmentFactor } from './environment.ts';
export { ruleProblems, rulesOf, type RuleProblem } from './environmentRules.ts';
export { CONFIGURATION_STRENGTHS, madeConfigurations, type ConfigurationProblem, type ConfigurationsAsked, type MadeConfigurations } from './madeConfigurations.ts';
export { alikeConfigurations, type AlikeConfigurations } from './alike.ts';
