import type { CaseProblem } from '@caderno/core/cases';
import { PARAMETER_TYPE_WORD } from '../look/index.ts';

/** What is worth a look in a case, in words. */
export function caseProblemSentence(problem: CaseProblem): string {
  switch (problem.code) {
    case 'parameter_undeclared':
      return `<${problem.name}> is used and not declared.`;
    case 'parameter_unused':
      return `<${problem.name}> is declared and stands in no text.`;
    case 'parameter_twice':
      return `Two parameters are called <${problem.name}>.`;
    case 'parameter_name_invalid':
      return `“${problem.name}” cannot be the name of a parameter.`;
    case 'default_not_of_type':
      return `The default of <${problem.name}>, “${problem.value}”, is not a ${PARAMETER_TYPE_WORD[problem.type]}.`;
    case 'row_unbound':
      return `Row ${problem.rowName || '(unnamed)'} gives <${problem.name}> no value, and it has no default.`;
    case 'row_name_twice':
      return `Two rows are called ${problem.rowName}.`;
  }
}
