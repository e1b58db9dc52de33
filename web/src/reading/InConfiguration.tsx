import { useSearchParams } from 'react-router';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';

/** The configuration that is read for: constants may have other values in it. */
export function InConfiguration() {
  const { project } = useFrame();
  const [search, setSearch] = useSearchParams();
  const configurations = useSettings(project).data?.settings.configurations ?? [];
  if (configurations.length === 0) return null;
  const choose = (id: string): void =>
    setSearch(
      (now) => {
        const next = new URLSearchParams(now);
        if (id === '') next.delete('in');
        else next.set('in', id);
        return next;
      },
      { replace: true },
    );
  return <Choose label="Configuration" value={search.get('in') ?? ''} options={[{ value: '', name: 'in no configuration' }, ...configurations.map((c) => ({ value: c.id, name: c.name }))]} onChange={choose} />;
}
