import { CASE_TARGETS, type CaseField, type CaseTarget } from '@caderno/core/caseFiles';
import { ownFieldsOf, type OwnField } from '@caderno/core/fields';

const WORD: Record<(typeof CASE_TARGETS)[number], string> = {
  title: 'Title', id: 'Id in the source', objective: 'Objective', preconditions: 'Preconditions', module: 'Module', priority: 'Priority', owner: 'Owner', tags: 'Tags', minutes: 'Minutes', kind: 'Procedure or charter', execution: 'By hand or automated',
  number: 'Number of the step', action: 'Steps: what is done', data: 'Data of the step', expected: 'Expected results', requirements: 'Requirements', conditions: 'Conditions', leave: 'Leave out', ownId: 'Id in this project', version: 'Version it was written from',
};

/** Targets that only our own files have; they are not offered where nothing was guessed as one. */
const SPECIAL: ReadonlySet<CaseTarget> = new Set<CaseTarget>(['ownId', 'version']);

/** What a column can be, as the mapping offers it; fields of the project's own by their names. */
export function caseTargetOptions(fields: readonly OwnField[], now: CaseTarget | undefined): { value: CaseTarget; name: string }[] {
  const ours = CASE_TARGETS.filter((target) => !SPECIAL.has(target) || target === now).map((value) => ({ value: value as CaseTarget, name: WORD[value] }));
  return [...ours, ...ownFieldsOf(fields, 'case').map((field) => ({ value: `own:${field.id}` as const, name: field.name }))];
}

/** What a field is called where a change of it is shown. */
export function caseFieldWord(field: CaseField, fields: readonly OwnField[]): string {
  if (field === 'steps') return 'Steps';
  return (WORD as Readonly<Record<string, string>>)[field] ?? fields.find((f) => `own:${f.id}` === field)?.name ?? field;
}
