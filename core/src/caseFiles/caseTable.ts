import type { ArtefactId, ArtefactState, CaseId, RequirementId } from '../artefacts/index.ts';
import { FILES_COLUMN, filesCell, type FilesBeside } from '../attachments/index.ts';
import type { CaseContent } from '../cases/index.ts';
import { itemsToShow, shownRatio, percentDown, type StandingCounts } from '../coverage/index.ts';
import { ownColumnName, ownFieldsOf, type OwnField } from '../fields/index.ts';
import { ownIdColumn } from '../exchange/index.ts';
import { caseFieldText, type PlainCaseField } from './caseField.ts';
import { attachedOf } from './attachedOf.ts';
import { CASE_COLUMNS, type CaseLayout } from './caseColumn.ts';
import { actionCell, fileStepOf, numberedSteps } from './stepText.ts';

/** A case as exports need it. */
export interface ExportedCase {
  readonly id: CaseId;
  readonly version: number;
  readonly state: ArtefactState;
  readonly content: CaseContent;
  /** Null: without requirements and figures. */
  readonly design: { readonly requirements: readonly RequirementId[]; readonly counts: StandingCounts; readonly instances: string } | null;
}

/** What a table of cases is written with. */
export interface CaseTableOptions {
  readonly project: string;
  readonly layout: CaseLayout;
  readonly fields: readonly OwnField[];
  readonly titleOf: (id: ArtefactId) => string;
  readonly figures: boolean;
  /** Null: what is attached does not come along. */
  readonly beside: FilesBeside | null;
}

const HEAD_FIELDS: readonly PlainCaseField[] = ['title', 'module', 'priority', 'owner', 'kind', 'execution', 'minutes', 'tags', 'objective', 'preconditions', 'conditions'];

/** Cases as a table, the names of the columns first. Imported again it changes nothing: the first columns say which case and version a row is of. */
export function* caseTable(cases: Iterable<ExportedCase>, options: CaseTableOptions): Generator<string[]> {
  const own = ownFieldsOf(options.fields, 'case');
  const figures = options.figures ? ['requirements of the conditions', 'instances', 'coverage items', 'shown', 'coverage %'] : [];
  const steps = options.layout === 'stepRows' ? ['step', 'action', 'expected result'] : ['steps', 'expected results'];
  yield [ownIdColumn(options.project), 'version', 'state', ...HEAD_FIELDS, ...own.map((f) => ownColumnName(f, CASE_COLUMNS)), ...figures, ...(options.beside === null ? [] : [FILES_COLUMN]), ...steps];
  for (const one of cases) yield* rowsOf(one, own, options);
}

function rowsOf(one: ExportedCase, own: readonly OwnField[], options: CaseTableOptions): string[][] {
  const head = [
    one.id, String(one.version), one.state,
    ...HEAD_FIELDS.map((field) => caseFieldText(one.content, field, options.fields)),
    ...own.map((field) => caseFieldText(one.content, `own:${field.id}`, options.fields)),
    ...(options.figures ? figureCells(one.design) : []),
    ...(options.beside === null ? [] : [filesCell(options.beside.of(one.id, attachedOf(one.content)))]),
  ];
  const steps = one.content.steps.map(fileStepOf).map((step) => ({ action: actionCell(step, options.titleOf), expected: step.kind === 'plain' ? step.expected : '' }));
  if (options.layout === 'caseRows') return [[...head, numberedSteps(steps.map((s) => s.action), true), numberedSteps(steps.map((s) => s.expected), false)]];
  if (steps.length === 0) return [[...head, '', '', '']];
  const blank = head.map(() => '');
  return steps.map(({ action, expected }, i) => [...(i === 0 ? head : blank), String(i + 1), action, expected]);
}

function figureCells(design: ExportedCase['design']): string[] {
  if (design === null) return ['', '', '', '', ''];
  const { requirements, counts, instances } = design;
  const percent = percentDown(shownRatio(counts));
  return [requirements.join(', '), instances, String(itemsToShow(counts)), String(counts.shown), percent === null ? '' : String(percent)];
}
