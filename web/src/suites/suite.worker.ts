import { highsMostSolver, highsSolver, mostShown, smallestCover, type Cover, type CoverProblem, type Most, type MostProblem } from '@caderno/core/covering';
import { membersInOrder, type Ordering, type ShowingMembers } from '@caderno/core/suites';
import type { CoveringId } from '@caderno/core/artefacts';
import loadHighs from 'highs';
import runtime from 'highs/runtime?url';

/** What the worker is asked for: once. It is ended by whoever asked. */
export type SuiteQuestion =
  | { readonly kind: 'smallest'; readonly problem: CoverProblem; readonly seconds: number }
  | { readonly kind: 'inTime'; readonly problem: MostProblem; readonly seconds: number }
  | { readonly kind: 'order'; readonly showing: ShowingMembers; readonly ordering: Ordering };

/** What it says, again and again; the last one says that it is the last. */
export interface SuiteNews {
  readonly smallest: { readonly found: Cover; readonly isLast: boolean };
  /** Null: what stays in any case takes longer. */
  readonly inTime: { readonly found: Most | null; readonly isLast: boolean };
  readonly order: { readonly found: readonly CoveringId[]; readonly isLast: true };
}

onmessage = ({ data }: MessageEvent<SuiteQuestion>): void => {
  void answer(data);
};

async function answer(question: SuiteQuestion): Promise<void> {
  const tell = (found: SuiteNews[keyof SuiteNews]['found'], isLast: boolean): void => postMessage({ found, isLast });
  switch (question.kind) {
    case 'order':
      return tell(membersInOrder(question.showing, question.ordering), true);
    case 'smallest': {
      const solver = highsSolver(await loadHighs({ locateFile: () => runtime }));
      return tell(smallestCover(question.problem, solver, question.seconds, (cover) => tell(cover, false), () => performance.now()), true);
    }
    case 'inTime': {
      const solver = highsMostSolver(await loadHighs({ locateFile: () => runtime }));
      return tell(mostShown(question.problem, solver, question.seconds, (most) => tell(most, false)), true);
    }
  }
}

// Whoever asked hears of what fails here as of any other error of a worker.
addEventListener('unhandledrejection', ({ reason }) => {
  throw reason;
});
