import { useSettings } from '../api/index.ts';
import { useFrame, useParameters } from '../frame/index.ts';
import { Choose } from '../look/index.ts';

/** The configuration that is read for: constants may have other values in it. */
export function InConfiguration() {
  const { project } = useFrame();
  const [search, setParameters] = useParameters();
  const configurations = useSettings(project).data?.settings.configurations ?? [];
  if (configurations.length === 0) return null;
  return <Choose label="Configuration" value={search.get('in') ?? ''} options={[{ value: '', name: 'in no configuration' }, ...configurations.map((c) => ({ value: c.id, name: c.name }))]} onChange={(id) => setParameters({ in: id })} />;
}
