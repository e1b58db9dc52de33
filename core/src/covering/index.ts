export { costOf, isProved, withNeeds, type Cover, type CoverCandidate, type CoverProblem } from './cover.ts';
export { reduce, type CoverPart, type Reduced } from './reduce.ts';
export { smallestCover, type CoverSolver, type SolverAnswer, type SolverQuestion } from './smallestCover.ts';
export { highsMostSolver, highsSolver } from './highsSolver.ts';
export { isMost, mostShown, type Most, type MostProblem, type MostQuestion, type MostSolver } from './mostShown.ts';
export { bestOrder, shownSoFar, type OrderCandidate, type OrderProblem, type OrderStage, type ShownSoFar } from './order.ts';
