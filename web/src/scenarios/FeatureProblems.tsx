import type { FeatureOutline } from '@caderno/core/scenarios';
import { featureProblemSentence } from '@caderno/contract';
import { MarginNote } from '../artefacts/index.ts';
import { TextButton, countOf } from '../look/index.ts';

/** Problems that the margin tells; the text marks them all. */
const MOST_TOLD = 8;

/** What is no good Gherkin, each leading to its line. */
export function FeatureProblems({ outline: { problems }, onShow }: { readonly outline: FeatureOutline; readonly onShow: (line: number) => void }) {
  if (problems.length === 0) return null;
  return (
    <MarginNote title={countOf(problems.length, 'problem')}>
      <ul className="space-y-1.5">
        {problems.slice(0, MOST_TOLD).map((problem) => (
          <li key={problem.line}>
            <TextButton data-on-paper onClick={() => onShow(problem.line - 1)}>Line {problem.line}</TextButton> {featureProblemSentence(problem)}
          </li>
        ))}
      </ul>
      {problems.length > MOST_TOLD && <p>and {problems.length - MOST_TOLD} more</p>}
    </MarginNote>
  );
}
