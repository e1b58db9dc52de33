export { CASE_LAYOUTS, CASE_TABLE, CASE_TARGETS, guessCaseMapping, isCaseColumnName, type CaseLayout, type CaseMapping, type CaseTarget } from './caseColumn.ts';
export { CASE_FIELDS, caseFieldText, type CaseField } from './caseField.ts';
export { caseEntriesOf, type CaseEntries, type CaseEntry, type CaseFileNames, type CaseLimits } from './caseEntries.ts';
export { addedCase, type CaseFileProject } from './caseContent.ts';
export { caseBaseOf, caseConflictKey, changedCase, openCaseConflicts, planCases, type CaseBase, type CasePlan, type ExistingCase, type PlannedCase } from './casePlan.ts';
export { caseTable, type CaseTableOptions, type ExportedCase } from './caseTable.ts';
export { MOST_INSTANCE_ROWS, instanceTable } from './instanceTable.ts';
export { numberedSteps } from './stepText.ts';
export { caseMarkdown, casesInMarkdown } from './caseMarkdown.ts';
