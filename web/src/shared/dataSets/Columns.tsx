import { fitsType, type Parameter, type ParameterId } from '@caderno/core/cases';
import { Choose, PARAMETER_TYPE_WORD, options } from '../../look/index.ts';
import type { ColumnCheck, EditTable } from '../../data/index.ts';

interface Props {
  readonly parameters: readonly Parameter[];
  readonly checks: ReadonlyMap<ParameterId, ColumnCheck>;
  readonly canEdit: boolean;
  readonly update: EditTable;
}

/** What each column is: its type, what an empty cell gives, and what it stands for. */
export function Columns({ parameters, checks, canEdit, update }: Props) {
  const set = (id: ParameterId, part: Partial<Parameter>): void => update((data) => ({ ...data, parameters: data.parameters.map((p) => (p.id === id ? { ...p, ...part } : p)) }));
  if (parameters.length === 0) return <p className="text-sm text-ink2">None yet: add a column below the rows, or import a file.</p>;
  return (
    <table className="w-full text-sm">
      <thead>
        <tr className="border-b border-ink2 text-left text-xs text-ink2">
          <th className="w-1/5 py-1 font-medium">column</th>
          <th className="w-28 font-medium">type</th>
          <th className="w-1/4 font-medium">an empty cell gives</th>
          <th className="font-medium">stands for</th>
        </tr>
      </thead>
      <tbody>
        {parameters.map((p) => (
          <tr key={p.id} className="border-b border-rule">
            <td className="py-1 pr-2">
              <span className="cad-parameter">{`<${p.name}>`}</span>
              {checks.has(p.id) && <span className="block text-xs text-pine">{checks.get(p.id)?.serves}</span>}
            </td>
            <td>
              <Choose label={`Type of ${p.name}`} value={p.type} options={options(PARAMETER_TYPE_WORD)} onChange={(type) => set(p.id, { type })} disabled={!canEdit} />
            </td>
            <td className="pr-2">
              <input aria-label={`Default of ${p.name}`} aria-invalid={!fitsType(p.type, p.default)} value={p.default} readOnly={!canEdit} placeholder="no default" onChange={(e) => set(p.id, { default: e.target.value })} className="field-quiet h-7 w-full font-mono text-xs aria-invalid:border-brick" />
            </td>
            <td>
              <input aria-label={`Description of ${p.name}`} value={p.description} readOnly={!canEdit} maxLength={300} placeholder="what it stands for" onChange={(e) => set(p.id, { description: e.target.value })} className="field-quiet h-7 w-full" />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
