import { LONGEST_SCALE, RISKS, SHORTEST_SCALE, resizeScale, type Risk, type RiskScale } from '@caderno/core/basis';
import { goOnInAdded } from '../focus/index.ts';
import { Choose, RISK_WORD, TextButton, options, TextBox, NumberBox } from '../look/index.ts';

interface Props {
  readonly scale: RiskScale;
  readonly canEdit: boolean;
  readonly onChange: (scale: RiskScale) => void;
}

const WASH: Record<Risk, string> = { high: 'bg-brick-wash', medium: 'bg-ochre-wash', low: 'bg-pine-wash' };

/** The project's scales as a grid: likelihood down, impact across, the resulting risk in every cell. */
export function RiskScaleEditor({ scale, canEdit, onChange }: Props) {
  const { likelihood, impact, risks, weights } = scale;
  const rename = (axis: 'likelihood' | 'impact', at: number, name: string): void => onChange({ ...scale, [axis]: scale[axis].map((n, i) => (i === at ? name : n)) });
  const resize = (axis: 'likelihood' | 'impact', names: readonly string[]): void => onChange(axis === 'likelihood' ? resizeScale(scale, names, impact) : resizeScale(scale, likelihood, names));
  const setRisk = (l: number, i: number, risk: Risk): void => onChange({ ...scale, risks: risks.map((row, x) => (x === l ? row.map((r, y) => (y === i ? risk : r)) : row)) });
  return (
    <div className="mt-3 flex flex-wrap items-start gap-8">
      <table className="text-sm">
        <caption className="sr-only">Risk by likelihood and impact</caption>
        <thead>
          <tr>
            <th className="pr-3 text-left text-xs font-normal text-ink2">likelihood ↓ impact →</th>
            {impact.map((name, i) => (
              <th key={i} className="p-1">
                <Name label={`Impact ${i + 1}`} value={name} readOnly={!canEdit} onChange={(text) => rename('impact', i, text)} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {likelihood.map((name, l) => (
            <tr key={l}>
              <th className="p-1">
                <Name label={`Likelihood ${l + 1}`} value={name} readOnly={!canEdit} onChange={(text) => rename('likelihood', l, text)} />
              </th>
              {impact.map((impactName, i) => (
                <td key={i} className={`border border-page p-1.5 text-center ${WASH[risks[l]?.[i] ?? 'medium']}`}>
                  <Choose label={`${name}, ${impactName}`} value={risks[l]?.[i] ?? 'medium'} options={options(RISK_WORD)} onChange={(risk) => setRisk(l, i, risk)} disabled={!canEdit} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="space-y-3 text-sm">
        {canEdit && (
          <p className="flex flex-col items-start text-xs">
            {(['likelihood', 'impact'] as const).map((axis) => (
              <span key={axis} className="flex gap-3">
                <TextButton disabled={scale[axis].length >= LONGEST_SCALE} onClick={(e) => goOnInAdded(e.currentTarget, () => resize(axis, [...scale[axis], `${axis} ${scale[axis].length + 1}`]))}>
                  Add a level of {axis}
                </TextButton>
                <TextButton disabled={scale[axis].length <= SHORTEST_SCALE} onClick={() => resize(axis, scale[axis].slice(0, -1))}>
                  Remove a level
                </TextButton>
              </span>
            ))}
          </p>
        )}
        <fieldset>
          <legend className="text-xs text-ink2">What a coverage item weighs</legend>
          {RISKS.map((risk) => (
            <label key={risk} className="mt-1 flex items-center gap-2">
              <NumberBox min={1} max={1000} value={weights[risk]} readOnly={!canEdit} onChange={(weight) => weight !== null && onChange({ ...scale, weights: { ...weights, [risk]: weight } })} className="w-20" />
              {RISK_WORD[risk]}
            </label>
          ))}
        </fieldset>
      </div>
    </div>
  );
}

function Name({ label, value, readOnly, onChange }: { readonly label: string; readonly value: string; readonly readOnly: boolean; readonly onChange: (name: string) => void }) {
  return <TextBox aria-label={label} value={value} readOnly={readOnly} maxLength={60} required onChange={onChange} className="w-28 text-center font-medium" />;
}
