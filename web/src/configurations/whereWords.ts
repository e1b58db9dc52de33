import { configurationNames } from '@caderno/core/handOffs';
import type { Configuration } from '@caderno/core/shared';
import { configurationsRun, type RunsIn } from '@caderno/core/suites';
import { useMemo } from 'react';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { locale } from '../look/index.ts';

/** What a configuration is called; what is not there any more says so. */
export function useConfigurationName(): (id: Configuration['id']) => string {
  const { project } = useFrame();
  const there = useSettings(project).data?.settings.configurations;
  return useMemo(() => {
    const names = configurationNames(there ?? []);
    return (id) => names.get(id) ?? (there === undefined ? '…' : 'one that is gone');
  }, [there]);
}

const MOST_NAMED = 2;

/** Where something runs that says so itself: `in Counter, Telephone`, `in 3 of 5`; empty where it says nothing. */
export function whereWords(own: RunsIn, configurations: readonly Configuration['id'][], nameOf: (id: Configuration['id']) => string): string {
  if (own === null || configurations.length === 0) return '';
  const runs = configurationsRun(own, configurations);
  if (runs.length === 0) return 'in no configuration';
  if (runs.length > MOST_NAMED) return `in ${runs.length.toLocaleString(locale())} of ${configurations.length.toLocaleString(locale())}`;
  return `in ${runs.map((id) => (id === null ? '' : nameOf(id))).join(', ')}`;
}
