import type { OwnField } from '@caderno/core/fields';
import { queryFieldsOf, queryNameOf, type QueryProblem } from '@caderno/core/find';
import type { ArtefactKind } from '@caderno/core/artefacts';

/** What of a query cannot be understood, and what would be. */
export function queryProblemSentence(problem: QueryProblem, kind: ArtefactKind, own: readonly OwnField[]): string {
  switch (problem.code) {
    case 'query_field_unknown':
      return `There is no field ${problem.field}: the fields are ${queryFieldsOf(kind, own).map((field) => (typeof field === 'string' ? field : queryNameOf(field))).join(', ')}.`;
    case 'query_value_missing':
      return `${problem.field} wants a value: write it right behind the sign.`;
    case 'query_not_compared':
      return `${problem.field} is not compared: write ${problem.field}:value.`;
    case 'query_value_unknown':
      if (problem.known.length > 0) return `${problem.field}:${problem.value} can match nothing: it is one of ${problem.known.join(', ')}.`;
      return WANTED[problem.field] === undefined ? `${problem.field} wants a number: write ${problem.field}>3.` : `“${problem.value}” ${WANTED[problem.field]}`;
    case 'query_quote_open':
      return 'A quote is not closed: everything behind it is taken as one phrase.';
    case 'query_bracket_open':
      return 'A bracket is not closed.';
    case 'query_bracket_stray':
      return 'A bracket is closed that was not opened.';
    case 'query_too_deep':
      return 'Brackets stand too deep in each other: this one is left out.';
    case 'query_or_alone':
      return 'There is nothing beside “or”.';
  }
}

const WANTED: Readonly<Partial<Record<string, string>>> = {
  covers: 'is no condition: write covers:K-3.', requirement: 'is no requirement: write requirement:R-3.', id: 'is no id: write id:C-3.', coverage: 'is no share in whole percent: write coverage<50%.',
};
