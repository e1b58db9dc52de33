import type { Environment } from '@caderno/core/configurations';
import { configurationNames } from '@caderno/core/handOffs';
import { configurationValues, type Configuration } from '@caderno/core/shared';
import type { SuiteContent } from '@caderno/core/suites';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSaveSettings, useSettings } from '../api/index.ts';
import { MakeConfigurations, useConfigurationName } from '../configurations/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf, Tick } from '../look/index.ts';

interface Props {
  readonly configurations: SuiteContent['configurations'];
  readonly canEdit: boolean;
  readonly onChange: (configurations: SuiteContent['configurations']) => void;
}

const MOST_NAMED = 4;

/** The configurations in which a suite is executed, and the way to others. */
export function WhereItRuns({ configurations, canEdit, onChange }: Props) {
  const [choosing, setChoosing] = useState(false);
  const nameOf = useConfigurationName();
  const named = configurations.slice(0, MOST_NAMED).map(nameOf);
  const others = configurations.length - named.length;
  if (configurations.length === 0 && !canEdit) return null;
  return (
    <p className="mt-1.5 text-sm text-ink2">
      {configurations.length === 0 ? 'Runs once, in no configuration.' : <>Runs in {named.join(', ')}{others > 0 && ` and ${countOf(others, 'other')}`}.</>}{' '}
      {canEdit && <TextButton onClick={() => setChoosing(true)}>choose configurations</TextButton>}
      {choosing && <ChooseConfigurations configurations={configurations} onChange={onChange} onClose={() => setChoosing(false)} />}
    </p>
  );
}

function ChooseConfigurations({ configurations, onChange, onClose }: Omit<Props, 'canEdit'> & { readonly onClose: () => void }) {
  const { project } = useFrame();
  const settings = useSettings(project).data;
  const save = useSaveSettings(project);
  const [making, setMaking] = useState(false);
  if (settings === undefined) return null;
  const { environment, configurations: there } = settings.settings;
  const take = async (made: readonly Configuration[], fresh: readonly Configuration[]): Promise<void> => {
    const isSaved = fresh.length === 0 || (await save(settings.version, { ...settings.settings, configurations: [...there, ...fresh] }));
    if (!isSaved) return;
    onChange(made.map((c) => c.id));
    onClose();
  };
  if (making) return <MakeConfigurations environment={environment} there={there} verb={(count) => `Run in ${count}`} onTake={(made, fresh) => void take(made, fresh)} onClose={() => setMaking(false)} />;
  return <Ticked environment={environment} there={there} configurations={configurations} onChange={onChange} onMake={() => setMaking(true)} onClose={onClose} />;
}

interface TickedProps extends Omit<Props, 'canEdit'> {
  readonly environment: Environment;
  /** Those of the project. */
  readonly there: readonly Configuration[];
  readonly onMake: () => void;
  readonly onClose: () => void;
}

/** The project’s configurations to be ticked; what is ticked counts at once. */
function Ticked({ environment, there, configurations, onChange, onMake, onClose }: TickedProps) {
  const { project } = useFrame();
  const gone = configurations.filter((id) => !there.some((c) => c.id === id));
  const names = configurationNames(there);
  const lines = [...there.map((c) => ({ id: c.id, name: names.get(c.id) ?? '', more: configurationValues(c) })), ...gone.map((id) => ({ id, name: 'one that is gone from the settings', more: '' }))];
  // In the order of the project, whatever was ticked first.
  const tick = (id: string, isTicked: boolean): void => onChange(lines.map((line) => line.id).filter((other) => (other === id ? isTicked : configurations.includes(other))));
  return (
    <Dialog title="Where it runs" onClose={onClose} keepsAtOnce>
      <p className="text-sm text-ink2">{lines.length === 0 ? 'The project has no configurations yet: everything runs once.' : 'Every member runs once in each that is ticked, unless its line or its part says otherwise.'}</p>
      <ul className="mt-2 max-h-[50vh] overflow-y-auto text-sm">
        {lines.map(({ id, name, more }) => (
          <li key={id}>
            <Tick checked={configurations.includes(id)} onChange={(ticked) => tick(id, ticked)}>
              <span className="min-w-0 break-words">
                {name} <span className="text-xs text-ink2">{more}</span>
              </span>
            </Tick>
          </li>
        ))}
      </ul>
      <p className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        {environment.factors.length > 0 ? (
          <TextButton onClick={onMake}>make configurations of the project’s factors</TextButton>
        ) : (
          <span className="text-ink2">
            Say in the{' '}
            <Link className="underline decoration-rule2" to={address.settings(project)}>
              settings
            </Link>{' '}
            what differs, as device or role, and configurations are made of that.
          </span>
        )}
        <span className="ml-auto">
          <Button onClick={onClose}>Close</Button>
        </span>
      </p>
    </Dialog>
  );
}
