import type { ConfigurationProblem, MadeConfigurations } from '@caderno/core/configurations';
import { constraintProblemSentence, countOf, locale } from '../look/index.ts';

/** What came of making configurations, in words; undefined: it is still being made. */
export function madeWords(made: MadeConfigurations | undefined): string {
  if (made === undefined) return 'Making …';
  switch (made.kind) {
    case 'made': {
      const there = made.isFound.filter(Boolean).length;
      return `${countOf(made.combinations, 'combination')} of values in ${countOf(made.configurations.length, 'configuration')}${there === 0 ? '' : `, ${there.toLocaleString(locale())} of them there already`}.`;
    }
    case 'tooMany':
      return `${made.combinations.toLocaleString(locale())} combinations are more than the ${made.most.toLocaleString(locale())} that can be made. Combine less, or fewer values.`;
    case 'problems':
      return made.problems.length === 0 ? 'Tick at least one factor.' : made.problems.map(problemSentence).join(' ');
  }
}

function problemSentence(problem: ConfigurationProblem): string {
  switch (problem.code) {
    case 'no_values':
      return `Tick at least one value of ${problem.factor}.`;
    case 'factor_twice':
      return `Two factors are called “${problem.factor}”: give one of them another name in the settings.`;
    case 'rule_misread':
      return `The rule “${problem.rule}” cannot be read. ${constraintProblemSentence(problem.problem)}`;
    case 'rule_too_tangled':
      return `The rule “${problem.rule}” is too tangled. Say it as several shorter ones: each of them must hold.`;
    case 'nothing_possible':
      return 'The rules allow no configuration of these values.';
    case 'value_impossible':
      return `The rules allow no configuration with ${problem.factor} = ${problem.value} among these values: tick more, or untick it.`;
  }
}
