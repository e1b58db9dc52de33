export { NO_OWN, OWN_FIELD_TYPES, beginningValues, missingIn, ownFieldId, ownFieldsOf, ownQueryName, ownTextFields, withOwnValue, type OwnChoice, type OwnField, type OwnFieldId, type OwnFieldType, type OwnValue, type OwnValues } from './ownField.ts';
export { choiceOf, ownText, readOwn, writeOwn, type OwnReading } from './ownReading.ts';
export { ownColumnName, ownFieldOfColumn, takenNames, type TakenNames } from './ownColumn.ts';
