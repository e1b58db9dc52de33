import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { ownFieldId, ownQueryName, type OwnField, type OwnFieldType } from '@caderno/core/fields';

/** A field of a project's own: its id, and those of its choices, are their names with dashes. */
export function ownField(name: string, type: OwnFieldType, choices: readonly string[] = [], more: Partial<OwnField> = {}): OwnField {
  return { id: ownFieldId(ownQueryName(name)), name, type, of: ARTEFACT_KINDS, choices: choices.map((choice) => ({ id: ownQueryName(choice), name: choice })), required: false, begins: null, help: '', removed: false, ...more };
}
