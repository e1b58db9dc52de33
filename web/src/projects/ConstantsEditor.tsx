import { isParameterName } from '@caderno/core/cases';
import { alikeConfigurations, type AlikeConfigurations } from '@caderno/core/configurations';
import type { Configuration, Constant } from '@caderno/core/shared';
import { X } from 'lucide-react';
import { useState } from 'react';
import { goOnInAdded } from '../focus/index.ts';
import { Choose, TextButton, TextBox, IconButton } from '../look/index.ts';
import { AlikeValue } from './AlikeValue.tsx';
import { ConstantValue } from './ConstantValue.tsx';

interface Props {
  readonly constants: readonly Constant[];
  readonly configurations: readonly Configuration[];
  readonly canEdit: boolean;
  readonly onChange: (constants: readonly Constant[]) => void;
}

const GRID = 'grid grid-cols-[minmax(8rem,1fr)_minmax(10rem,1.4fr)_5rem_minmax(10rem,1.6fr)_1.75rem] items-center gap-2';

/** The project's constants; the value of a secret one is typed, and shown again only to a lead who asks for it, which the journal of people tells. */
export function ConstantsEditor({ constants, configurations, canEdit, onChange }: Props) {
  const [shown, setShown] = useState('');
  const inOne = configurations.find((c) => c.id === shown) ?? null;
  const groups = alikeConfigurations(configurations).map((alike) => ({ key: `${alike.factor} = ${alike.value}`, alike }));
  const inSome = groups.find((g) => g.key === shown)?.alike ?? null;
  const set = (id: string, part: Partial<Constant>): void => onChange(constants.map((c) => (c.id === id ? { ...c, ...part } : c)));
  const isWrong = ({ id, name }: Constant): boolean => !isParameterName(name) || constants.some((c) => c.id !== id && c.name === name);
  return (
    <div className="mt-2 text-sm">
      {configurations.length > 0 && constants.length > 0 && (
        <p className="mb-2 flex items-center gap-2">
          <Choose label="Values" showLabel value={inOne === null && inSome === null ? '' : shown} options={[{ value: '', name: 'usual ones' }, ...configurations.map((c) => ({ value: c.id, name: `in ${c.name}` })), ...groups.map(({ key, alike }) => ({ value: key, name: `where ${key} (${alike.ids.length})` }))]} onChange={setShown} />
          {shown !== '' && <span className="text-xs text-ink2">what is left empty has its usual value there</span>}
        </p>
      )}
      {constants.length > 0 && (
        <div className={`${GRID} pb-0.5 text-xs text-ink2`} aria-hidden="true">
          <span>name</span>
          <span>value</span>
          <span>secret</span>
          <span>description</span>
        </div>
      )}
      {constants.map((constant) => (
        <div key={constant.id} className={`${GRID} border-t border-rule py-1`}>
          <TextBox aria-label={`Name of the constant ${constant.name}`} aria-invalid={isWrong(constant)} title={isWrong(constant) ? 'A name begins with a letter or digit, has no brackets, and stands once' : undefined} readOnly={!canEdit} value={constant.name} maxLength={80} onChange={(text) => set(constant.id, { name: text })} className="w-full font-mono text-xs" />
          <Value constant={constant} inOne={inOne} inSome={inSome} canEdit={canEdit} onChange={(part) => set(constant.id, part)} />
          <input aria-label={`${constant.name} is secret`} type="checkbox" data-on-paper disabled={!canEdit} checked={constant.secret} onChange={(e) => set(constant.id, { secret: e.target.checked })} className="justify-self-center" />
          <TextBox aria-label={`Description of ${constant.name}`} readOnly={!canEdit} value={constant.description} maxLength={300} placeholder="what it is for" onChange={(text) => set(constant.id, { description: text })} className="w-full" />
          {canEdit && (
            <IconButton label={`Remove the constant ${constant.name}`} title="Remove" onClick={() => onChange(constants.filter((c) => c.id !== constant.id))} icon={<X size={13} aria-hidden="true" />} />
          )}
        </div>
      ))}
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange([...constants, { id: crypto.randomUUID().slice(0, 8), name: `constant ${constants.length + 1}`, value: '', secret: false, description: '', others: {} }]))}>
          add a constant
        </TextButton>
      )}
    </div>
  );
}

interface ValueProps {
  readonly constant: Constant;
  readonly inOne: Configuration | null;
  readonly inSome: AlikeConfigurations | null;
  readonly canEdit: boolean;
  readonly onChange: (part: Partial<Constant>) => void;
}

/** Its value in a configuration, in several that are alike, or the usual one. */
function Value({ constant, inOne, inSome, canEdit, onChange }: ValueProps) {
  if (inOne !== null) return <OtherValue constant={constant} configuration={inOne} canEdit={canEdit} onChange={(others) => onChange({ others })} />;
  if (inSome !== null) return <AlikeValue constant={constant} alike={inSome} canEdit={canEdit} onChange={(others) => onChange({ others })} />;
  return <ConstantValue constant={constant} configuration={null} canEdit={canEdit} onChange={(value) => onChange({ value })} />;
}

interface OtherProps {
  readonly constant: Constant;
  readonly configuration: Configuration;
  readonly canEdit: boolean;
  readonly onChange: (others: Constant['others']) => void;
}

/** The value in one configuration, with the usual one where none is given. */
function OtherValue({ constant, configuration, canEdit, onChange }: OtherProps) {
  const set = (value: string): void => {
    const others = Object.entries(constant.others).filter(([id]) => id !== configuration.id);
    onChange(Object.fromEntries(value === '' ? others : [...others, [configuration.id, value]]));
  };
  return <ConstantValue constant={constant} configuration={configuration} canEdit={canEdit} onChange={set} />;
}
