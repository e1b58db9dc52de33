import { attributeName, type FieldName, type Target } from '@caderno/core/exchange';

/** What a column can be, as the mapping offers it. */
export const TARGET_WORD: Record<Target, string> = {
  title: 'Title',
  text: 'Text',
  id: 'Id in the source',
  parent: 'Id of the one above',
  level: 'Level or outline number',
  type: 'Kind',
  module: 'Module',
  risk: 'Risk',
  likelihood: 'Likelihood',
  impact: 'Impact',
  priority: 'Priority',
  source: 'Source',
  link: 'Link back',
  attribute: 'Keep as a field',
  leave: 'Leave out',
  ownId: 'Id in this project',
  version: 'Version it was written from',
  facts: 'Kept for writing ReqIF again',
};

export function fieldWord(field: FieldName): string {
  return attributeName(field) ?? TARGET_WORD[field as Target];
}
