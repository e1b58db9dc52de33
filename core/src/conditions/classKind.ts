/** What an other class of values is, beside the intervals and choices of a field. */
export const CLASS_KINDS = [
  'missing',
  'empty',
  'letters',
  'specialCharacters',
  'fraction',
  'tooPrecise',
  'impossibleDate',
  'notListed',
  'tooLong',
  'example',
] as const;
export type ClassKind = (typeof CLASS_KINDS)[number];
