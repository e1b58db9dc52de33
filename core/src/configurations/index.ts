export { EMPTY_ENVIRONMENT, ruleProblems, rulesOf, type Environment, type EnvironmentFactor, type RuleProblem } from './environment.ts';
export { CONFIGURATION_STRENGTHS, madeConfigurations, type ConfigurationProblem, type ConfigurationsAsked, type MadeConfigurations } from './madeConfigurations.ts';
export { alikeConfigurations, type AlikeConfigurations } from './alike.ts';
