import type { Environment } from '@caderno/core/configurations';
import type { Configuration } from '@caderno/core/shared';
import { X } from 'lucide-react';
import { useState } from 'react';
import { MakeConfigurations } from '../configurations/index.ts';
import { goOnInAdded } from '../focus/index.ts';
import { TextButton, TextBox, IconButton } from '../look/index.ts';

interface Props {
  readonly configurations: readonly Configuration[];
  /** What they are made of. */
  readonly environment: Environment;
  readonly canEdit: boolean;
  readonly onChange: (configurations: readonly Configuration[]) => void;
}

const GRID = 'grid grid-cols-[minmax(8rem,1fr)_minmax(14rem,2.4fr)_1.75rem] items-center gap-2';

/** The environments a project is tested in: a name, and what each of its factors is there. */
export function ConfigurationsEditor({ configurations, environment, canEdit, onChange }: Props) {
  const [making, setMaking] = useState(false);
  const set = (id: string, part: Partial<Configuration>): void => onChange(configurations.map((c) => (c.id === id ? { ...c, ...part } : c)));
  return (
    <div className="mt-2 text-sm">
      {configurations.map((configuration) => (
        <div key={configuration.id} className={`${GRID} border-t border-rule py-1`}>
          <TextBox aria-label={`Name of the configuration ${configuration.name}`} aria-invalid={configuration.name === ''} readOnly={!canEdit} value={configuration.name} maxLength={200} onChange={(text) => set(configuration.id, { name: text })} className="w-full" />
          <Factors configuration={configuration} canEdit={canEdit} onChange={(factors) => set(configuration.id, { factors })} />
          {canEdit && (
            <IconButton label={`Remove the configuration ${configuration.name}`} title="Remove" onClick={() => onChange(configurations.filter((c) => c.id !== configuration.id))} icon={<X size={13} aria-hidden="true" />} />
          )}
        </div>
      ))}
      {canEdit && (
        <TextButton className="mt-1 text-xs" onClick={(e) => goOnInAdded(e.currentTarget, () => onChange([...configurations, { id: crypto.randomUUID().slice(0, 8), name: `configuration ${configurations.length + 1}`, factors: [] }]))}>
          add a configuration
        </TextButton>
      )}
      {canEdit && environment.factors.length > 0 && (
        <TextButton className="ml-4 mt-1 text-xs" onClick={() => setMaking(true)}>
          make configurations of the factors
        </TextButton>
      )}
      {making && (
        <MakeConfigurations
          environment={environment}
          there={configurations}
          verb={(count) => `Take ${count}`}
          onTake={(_, fresh) => {
            onChange([...configurations, ...fresh]);
            setMaking(false);
          }}
          onClose={() => setMaking(false)}
        />
      )}
    </div>
  );
}

/** Factors are typed as `device = telephone, role = clerk`; they are read when one leaves the field. */
function Factors({ configuration, canEdit, onChange }: { readonly configuration: Configuration; readonly canEdit: boolean; readonly onChange: (factors: Configuration['factors']) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = (): void => {
    if (typed !== null) onChange(factorsOf(typed));
    setTyped(null);
  };
  return (
    <TextBox
      aria-label={`Factors of ${configuration.name}`}
      placeholder="name = value, commas between"
      readOnly={!canEdit}
      value={typed ?? configuration.factors.map((f) => `${f.name} = ${f.value}`).join(', ')}
      onChange={setTyped}
      onBlur={leave}
      className="w-full"
    />
  );
}

function factorsOf(text: string): Configuration['factors'] {
  return text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .slice(0, 30)
    .map((part) => {
      const at = part.indexOf('=');
      return at < 0 ? { name: part, value: '' } : { name: part.slice(0, at).trim() || 'factor', value: part.slice(at + 1).trim() };
    });
}
