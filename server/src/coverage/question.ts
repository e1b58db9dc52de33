import { isCaseId, type CaseId, type CoveringId, type SuiteId } from '@caderno/core/artefacts';
import type { Step } from '@caderno/core/cases';
import { findRuns, type FoundRun } from '@caderno/core/shared';
import type { Additions, AskedItems, AskedMatrix, Choice, ChosenCoverage, CoverageIndex, CoverageReport, ItemFilter, ListedItem, MatrixCells, ShownMatrix } from '@caderno/core/coverage';
import type { ScenarioEffort } from '@caderno/core/scenarios';
import type { AlikeState } from './alikeSearch.ts';
import { additions, askedMatrix, choiceCells, chosenCoverage, coverageReport, heldUp, listItems, matrixCells, shownMatrix } from '@caderno/core/coverage';
import { trendFigures, type SuiteChoice, type TrendFigures } from '@caderno/core/trend';

/** What can be asked of a project's coverage index. */
export type IndexQuestion =
  | { readonly kind: 'report' }
  | { readonly kind: 'figures'; readonly suites: readonly SuiteChoice[]; readonly scenarios: ScenarioEffort }
  | { readonly kind: 'items'; readonly filter: ItemFilter; readonly limit: number }
  | { readonly kind: 'runs'; readonly steps: readonly Step[]; readonly except: CaseId | null }
  | { readonly kind: 'alike' }
  | { readonly kind: 'heldUp' }
  | { readonly kind: 'chosen'; readonly choices: readonly Choice[] }
  | { readonly kind: 'cells' }
  | { readonly kind: 'choiceCells'; readonly choices: readonly ChoiceOf[] }
  | { readonly kind: 'matrix'; readonly choice: Choice }
  | { readonly kind: 'asked'; readonly asked: AskedItems }
  | { readonly kind: 'additions'; readonly choice: Choice; readonly missed: AskedItems };

/** What a suite chooses. */
export interface ChoiceOf {
  readonly column: SuiteId;
  readonly choice: Choice;
}

/** `catchUp`: that the rows are brought to the project's present revision. */
export type Question = IndexQuestion | { readonly kind: 'catchUp' };

/** `byUs`: this server wrote the rows last, another one did not. */
export interface CaughtUp {
  readonly byUs: boolean;
}

export interface AnswerTo {
  readonly catchUp: CaughtUp;
  readonly report: CoverageReport;
  readonly figures: TrendFigures;
  readonly items: { readonly items: readonly ListedItem[]; readonly total: number };
  readonly runs: readonly FoundRun[];
  readonly alike: AlikeState;
  readonly heldUp: Readonly<Record<string, number>>;
  readonly chosen: readonly ChosenCoverage[];
  readonly cells: MatrixCells<CoveringId>;
  readonly choiceCells: MatrixCells<SuiteId>;
  readonly matrix: ShownMatrix;
  readonly asked: AskedMatrix;
  readonly additions: Additions;
}
export type Answer = AnswerTo[Question['kind']];

/** `alike`: answers what is known of runs and cases nearly alike. */
export function answer(index: CoverageIndex, question: IndexQuestion, alike: () => AlikeState): Answer {
  switch (question.kind) {
    case 'report':
      return coverageReport(index);
    case 'figures':
      return trendFigures(index, question.suites, question.scenarios);
    case 'items':
      return listItems(index, question.filter, question.limit);
    case 'runs':
      return findRuns([...index.cases.values()].flatMap(({ id, state, content }) => (state !== 'withdrawn' && isCaseId(id) ? [{ id, content }] : [])), question.steps, question.except);
    case 'alike':
      return alike();
    case 'heldUp':
      return Object.fromEntries(heldUp(index));
    case 'chosen':
      return question.choices.map((choice) => chosenCoverage(index, choice));
    case 'cells':
      return matrixCells(index);
    case 'choiceCells':
      return choiceCells(index, question.choices);
    case 'matrix':
      return shownMatrix(index, question.choice);
    case 'asked':
      return askedMatrix(index, question.asked);
    case 'additions':
      return additions(index, question.choice, question.missed);
  }
}
