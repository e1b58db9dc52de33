import { ARTEFACT_KINDS } from '../../artefacts/index.ts';
import { ownFieldId, ownQueryName, type OwnField, type OwnFieldType } from '../ownField.ts';

/** A field for tests: its id, and those of its choices, are their names with dashes. */
export function testField(name: string, type: OwnFieldType, { choices = [], ...more }: Partial<Omit<OwnField, 'choices'>> & { readonly choices?: readonly string[] } = {}): OwnField {
  return { id: ownFieldId(ownQueryName(name)), name, type, of: ARTEFACT_KINDS, choices: choices.map((choice) => ({ id: ownQueryName(choice), name: choice })), required: false, begins: null, help: '', removed: false, ...more };
}
