import type { FeatureId } from '@caderno/core/artefacts';
import type { FeatureOutline } from '@caderno/core/scenarios';
import { featureProblemSentence } from '@caderno/contract';
import { useSummaries } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { pathProblem } from './pathProblem.ts';

/** Problems that the margin tells; the text marks them all. */
const MOST_TOLD = 8;

interface Props {
  readonly id: FeatureId;
  readonly path: string;
  readonly outline: FeatureOutline;
  readonly onShow: (line: number) => void;
}

/** What is no good Gherkin, each leading to its line, and what is wrong with where the file stands. */
export function FeatureProblems({ id, path, outline: { problems }, onShow }: Props) {
  const { project } = useFrame();
  const features = useSummaries(project, 'feature').data;
  const ofPath = pathProblem(id, path, features ?? []);
  const count = problems.length + (ofPath === null ? 0 : 1);
  if (count === 0) return null;
  return (
    <MarginNote title={countOf(count, 'problem')}>
      <ul className="space-y-1.5">
        {ofPath !== null && <li>{ofPath}</li>}
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
