import type { CaseId, RequirementId } from '@caderno/core/artefacts';
import type { Step } from '@caderno/core/cases';
import { findRuns, type FoundRun } from '@caderno/core/shared';
import type { CaseCounts, CaseMark, CoverageIndex, CoverageReport, ItemFilter, ListedItem, RequirementCoverage } from '@caderno/core/coverage';
import type { AlikeState } from './alikeSearch.ts';
import { caseMarks, coverageReport, heldUp, listItems, requirementStandings } from '@caderno/core/coverage';

/** What can be asked of a project's coverage. */
export type Question =
  | { readonly kind: 'report' }
  | { readonly kind: 'items'; readonly filter: ItemFilter; readonly limit: number }
  | { readonly kind: 'standings'; readonly requirement: RequirementId }
  | { readonly kind: 'runs'; readonly steps: readonly Step[]; readonly except: CaseId | null }
  | { readonly kind: 'alike' }
  | { readonly kind: 'caseMarks' }
  | { readonly kind: 'caseCounts' }
  | { readonly kind: 'heldUp' };

export interface AnswerTo {
  readonly report: CoverageReport;
  readonly items: { readonly items: readonly ListedItem[]; readonly total: number };
  readonly standings: RequirementCoverage['conditions'];
  readonly runs: readonly FoundRun[];
  readonly alike: AlikeState;
  readonly caseCounts: Readonly<Record<string, CaseCounts>>;
  readonly caseMarks: Readonly<Record<string, CaseMark>>;
  readonly heldUp: Readonly<Record<string, number>>;
}
export type Answer = AnswerTo[Question['kind']];

/** `alike`: answers what is known of runs and cases nearly alike. */
export function answer(index: CoverageIndex, question: Question, alike: () => AlikeState): Answer {
  switch (question.kind) {
    case 'report':
      return coverageReport(index);
    case 'items':
      return listItems(index, question.filter, question.limit);
    case 'standings':
      return requirementStandings(index, question.requirement);
    case 'runs':
      return findRuns([...index.cases.values()].filter((c) => c.state !== 'withdrawn'), question.steps, question.except);
    case 'alike':
      return alike();
    case 'caseCounts':
      return Object.fromEntries(index.openedCounts());
    case 'caseMarks':
      return Object.fromEntries(caseMarks(index));
    case 'heldUp':
      return Object.fromEntries(heldUp(index));
  }
}
