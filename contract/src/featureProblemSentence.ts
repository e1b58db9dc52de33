import type { FeatureProblem } from '@caderno/core/scenarios';

/** What is wrong with a line of a feature, and what mends it. */
export function featureProblemSentence({ code, found }: Pick<FeatureProblem, 'code' | 'found'>): string {
  switch (code) {
    case 'unexpected_line':
      return `“${found}” cannot stand here: a line begins with a keyword, as Given or Scenario:, or belongs to a table, a doc string or a description.`;
    case 'unexpected_end':
      return 'The file ends too early: a doc string needs its closing quotation marks, and tags need what they stand above.';
    case 'unknown_language':
      return `There is no such language: “${found}”. Use a code as en, pt or de.`;
    case 'space_in_tag':
      return `A tag has no spaces: “${found}”. Each tag begins with @.`;
    case 'uneven_table':
      return `This row has ${found} ${found === '1' ? 'cell' : 'cells'}; the first row of the table has another number.`;
    case 'not_read_further':
      return 'So much is wrong above that the rest was not read. Nothing of it is lost.';
  }
}
