export {
  EMPTY_CASE,
  PARAMETER_TYPES,
  caseMeaning,
  newCover,
  parameterId,
  rowId,
  stepId,
  type CarriedEvent,
  type CaseContent,
  type Cover,
  type Parameter,
  type ParameterId,
  type ParameterType,
  type Row,
  type RowId,
  type Step,
  type StepId,
} from './testCase.ts';
export { isParameterName, parametersIn, parseParameterText, renameInText, type TextPart } from './parameterText.ts';
export { bindCell, bindRow, bindText, caseInstances, type BoundPart, type BoundValue, type Instance } from './binding.ts';
export { parsePastedSteps, type PastedStep } from './pastedSteps.ts';
export { caseProblems, fitsType, parametersUsed, removeParameter, renameParameter, type CaseProblem } from './parameters.ts';
