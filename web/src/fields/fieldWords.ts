import type { OwnFieldType } from '@caderno/core/fields';

/** What the types of fields are called where one is chosen. */
export const FIELD_TYPE_WORD: Record<OwnFieldType, string> = {
  text: 'Text', longText: 'Long text', number: 'Number', choice: 'One of a list', choices: 'Several of a list', date: 'Date', person: 'Person', yesNo: 'Yes or no', link: 'Link',
};

/** What is to be said of a value that does not fit, after the value. */
export const FIELD_WANTS: Record<OwnFieldType, string> = {
  text: 'is no text.', longText: 'is no text.', number: 'is no number: digits, with a point before decimals.', choice: 'is none of the choices.', choices: 'are not all among the choices.', date: 'is no day: write 2026-11-28.', person: 'is no name.', yesNo: 'is neither yes nor no.', link: 'is no address: it begins with https:// or mailto:.',
};
