import type { AlikeConfigurations } from '@caderno/core/configurations';
import { SECRET_MASK, type Constant } from '@caderno/core/shared';

interface Props {
  readonly constant: Constant;
  readonly alike: AlikeConfigurations;
  readonly canEdit: boolean;
  readonly onChange: (others: Constant['others']) => void;
}

/** The value of a constant in all configurations that are alike; one that is typed is the value in each of them. */
export function AlikeValue({ constant, alike: { factor, value: of, ids }, canEdit, onChange }: Props) {
  const { name, secret, value: usual, others } = constant;
  const values = new Set(ids.map((id) => others[id] ?? ''));
  const [common = ''] = values.size === 1 ? values : [];
  const isKept = secret && common === SECRET_MASK;
  const set = (typed: string): void => {
    const rest = Object.entries(others).filter(([id]) => !ids.includes(id));
    onChange(Object.fromEntries(typed === '' ? rest : [...rest, ...ids.map((id) => [id, typed])]));
  };
  return (
    <input
      aria-label={`Value of ${name} where ${factor} = ${of}`}
      type={secret ? 'password' : 'text'}
      autoComplete="off"
      readOnly={!canEdit}
      value={isKept ? '' : common}
      maxLength={2_000}
      placeholder={isKept ? `${SECRET_MASK} kept; type to replace it` : values.size > 1 ? 'not the same in all of them' : secret ? '' : usual}
      onChange={(e) => set(e.target.value)}
      className="field-boxed w-full min-w-0 font-mono text-xs"
    />
  );
}
