import { besideEachOther, outlineOf, type ReadScenario, type ScenarioPlace, type ScenarioStep, type StepPair } from '@caderno/core/scenarios';
import { useMemo } from 'react';
import { useArtefact } from '../../api/index.ts';
import { Loading } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { StepText } from '../FeatureLines.tsx';
import { useWording } from '../../phrases/index.ts';

/** Two scenarios beside each other: what only one of them says is marked, and values that differ. */
export function SideBySide({ first, second }: { readonly first: ScenarioPlace; readonly second: ScenarioPlace }) {
  const left = useScenario(first);
  const right = useScenario(second);
  const { own } = useWording(useFrame().project);
  const pairs = useMemo(() => (left.scenario === undefined || right.scenario === undefined ? [] : besideEachOther(left.scenario, right.scenario, own)), [left.scenario, own, right.scenario]);
  if (left.scenario === undefined || right.scenario === undefined) return <Loading error={left.error ?? right.error} />;
  return (
    <table aria-label={`${first.feature}/${first.scenario} beside ${second.feature}/${second.scenario}`} className="mb-2 w-[calc(100%-8.25rem)] table-fixed text-sm">
      <tbody>
        {pairs.map((pair, i) => (
          <tr key={i} className="border-b border-rule align-top">
            <Side step={pair.left} pair={pair} />
            <Side step={pair.right} pair={pair} />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Side({ step, pair }: { readonly step: ScenarioStep | null; readonly pair: StepPair }) {
  const alone = pair.left === null || pair.right === null;
  return (
    <td className={`py-1 pr-3 ${step !== null && alone ? 'bg-ochre-wash shadow-[inset_3px_0_0_var(--color-ochre)]' : ''}`}>
      {step !== null && (
        <span className="block pl-2.5">
          <span className="mr-2 font-semibold text-blue">{step.keyword}</span>
          <StepText text={step.text} marked={pair.differing} />
          {alone && <span className="sr-only"> (only here)</span>}
        </span>
      )}
    </td>
  );
}

function useScenario({ feature, scenario: number }: ScenarioPlace): { scenario: ReadScenario | undefined; error: Error | null } {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'feature', feature);
  const scenario = useMemo(() => (data === undefined ? undefined : outlineOf(data.content).scenarios.find((s) => s.number === number)), [data, number]);
  return { scenario, error };
}
