export { CoverageKeeper } from './keeper.ts';
export { CoverageIndexes } from './indexes.ts';
export { designWording } from './designRows.ts';
export { answer, type AnswerTo, type ChoiceOf, type Question } from './question.ts';
export { listConditions, readDesign } from './design.ts';
export { COMPUTATION, COVERAGE_CHANNEL, coverageState, hasComeTo, isUpToDate, readRowsSince } from './rows.ts';
