import { effectiveRisk, type RequirementContent } from '@caderno/core/basis';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose, RISK_WORD, options } from '../look/index.ts';

interface Props {
  readonly content: RequirementContent;
  readonly canEdit: boolean;
  readonly update: (change: (content: RequirementContent) => RequirementContent) => void;
}

const OUTRIGHT = 'outright';

/** The risk, said outright where it is not rated. */
export function Risk({ content, canEdit, update }: Props) {
  const scale = useRiskScale();
  if (scale === undefined) return null;
  return <Choose label="Risk" value={effectiveRisk(scale, content)} options={options(RISK_WORD)} onChange={(value) => update((c) => ({ ...c, risk: value, rating: null }))} disabled={!canEdit || content.rating !== null} />;
}

/** The risk rated by likelihood and impact, on the project's scales. */
export function RiskRating({ content, canEdit, update }: Props) {
  const scale = useRiskScale();
  if (scale === undefined) return null;
  const { rating } = content;
  const steps = (names: readonly string[]) => [...names.map((name, i) => ({ value: String(i), name })), { value: OUTRIGHT, name: 'not rated' }];
  const rate = (part: 'likelihood' | 'impact') => (value: string) =>
    update((c) => {
      if (value === OUTRIGHT) return { ...c, rating: null, risk: effectiveRisk(scale, content) };
      const start = c.rating ?? { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
      return { ...c, rating: { ...start, [part]: Number(value) } };
    });
  const shown = (step: number | undefined, names: readonly string[]): string => (step === undefined ? OUTRIGHT : String(Math.min(step, names.length - 1)));
  return (
    <>
      <Choose label="Likelihood" showLabel value={shown(rating?.likelihood, scale.likelihood)} options={steps(scale.likelihood)} onChange={rate('likelihood')} disabled={!canEdit} />
      <Choose label="Impact" showLabel value={shown(rating?.impact, scale.impact)} options={steps(scale.impact)} onChange={rate('impact')} disabled={!canEdit} />
    </>
  );
}

function useRiskScale() {
  const { project } = useFrame();
  return useSettings(project).data?.settings.riskScale;
}
