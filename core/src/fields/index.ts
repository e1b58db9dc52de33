export { LONGEST_FIELD_NAME, NO_OWN, OWN_FIELD_TYPES, beginningValues, isSameOwnName, missingIn, ownFieldForColumn, ownFieldId, ownFieldsOf, ownQueryName, ownTextFields, withOwnValue, type OwnChoice, type OwnField, type OwnFieldId, type OwnFieldType, type OwnValue, type OwnValues } from './ownField.ts';
export { choiceOf, ownText, readOwn, writeOwn, type OwnReading } from './ownReading.ts';
export { ownColumnName, ownFieldOfColumn, takenNames, type TakenNames } from './ownColumn.ts';
