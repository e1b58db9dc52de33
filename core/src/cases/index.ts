export { findDependencyCircle } from './dependencies.ts';
export { expects, isPlainStep, isUse, plainStep, stepId, textsOfStep, usedBy, withTexts, type Argument, type CalledRows, type CaseCall, type PlainStep, type SharedUse, type Step, type StepId, type Use } from './step.ts';
export {
  CASE_KINDS,
  EMPTY_CASE,
  EXECUTIONS,
  newCover,
  type CarriedEvent,
  type CaseContent,
  type CaseDependency,
  type CaseKind,
  type CaseOrigin,
  type Cover,
  type Execution,
  type DataUse,
} from './testCase.ts';
export { PARAMETER_TYPES, parameterId, type Parameter, type ParameterId, type ParameterType } from './parameter.ts';
export { ROW_MARKS, newRow, rowId, type Row, type RowId, type RowMark } from './row.ts';
export { NAME_COLUMN, compareCells, filteredRows, sortedRows, type ColumnFilter, type ColumnId } from './rowFilter.ts';
export { ALL_ROWS, rowsChosen, withRowsRunning, type RowChoice } from './rowChoice.ts';
export { isParameterName, parametersIn, parseParameterText, renameInText, type TextPart } from './parameterText.ts';
export { bindCell, bindRow, bindText, caseInstances, type BoundPart, type BoundValue, type Instance } from './binding.ts';
export { COLUMN_ROLES, parsePastedSteps, parsePastedTable, stepsOfTable, type ColumnRole, type PastedStep, type PastedTable } from './pastedSteps.ts';
export { caseProblems, fitsType, parameterProblems, parametersUsed, removeParameter, renameInSteps, renameParameter, textsOfCase, withCaseTexts, withoutLostSteps, type CaseProblem, type Written } from './parameters.ts';
export { LOOK_RULES, type LookRule } from './lookRule.ts';
export { looksAt, withActionsSplit, type Look, type LookContext } from './looks.ts';
export { CLONED_PARTS, type ClonedPart } from './clonedPart.ts';
export { cloneCase, type Replacement } from './cloning.ts';
export { MERGED_STEPS, mergeCases, saySame, withCallsMoved, type MergedCase, type MergedSteps } from './merging.ts';
export { caseKind } from './caseKind.ts';
export { textsBefore } from './textsBefore.ts';
export { stepsWithPins } from './pins.ts';
export { loosest, pinLedTo, pinnedVersion, pinnedVersions, useLinks, usesLedTo } from './uses.ts';
export { freeName } from './freeName.ts';
