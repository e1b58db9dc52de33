import { TARGETS, attributeName, ownFieldName, ownFieldNamed, type FieldName, type OwnFieldName, type Target } from '@caderno/core/exchange';
import { ownFieldsOf, type OwnField } from '@caderno/core/fields';

/** What a column can be, as the mapping offers it. */
const TARGET_WORD: Record<Exclude<Target, OwnFieldName>, string> = {
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

/** What a column may be, with the fields of the project's own; `special` ones only where they were guessed. */
export function targetOptions(guessed: Target, fields: readonly OwnField[]): readonly { readonly value: Target; readonly name: string }[] {
  const plain = TARGETS.filter((target) => !SPECIAL.has(target) || target === guessed).map((value) => ({ value, name: TARGET_WORD[value] }));
  return [...plain, ...ownFieldsOf(fields, 'requirement').map(({ id, name }) => ({ value: ownFieldName(id), name }))];
}

/** Targets that only our own files have; they are not offered where nothing was guessed as one. */
const SPECIAL: ReadonlySet<Target> = new Set<Target>(['ownId', 'version', 'facts']);

export function fieldWord(field: FieldName, fields: readonly OwnField[]): string {
  return attributeName(field) ?? ownFieldNamed(field, fields)?.name ?? (Object.hasOwn(TARGET_WORD, field) ? TARGET_WORD[field as keyof typeof TARGET_WORD] : field);
}
