import { asJson, type Json } from '@caderno/core/versions';
import { useCallback } from 'react';
import { useOwnFields, useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { configurationsNamed } from './configurationsNamed.ts';
import { ownNamed } from './ownNamed.ts';

/** Contents as people compare them: what the project’s settings have ids for by its name. */
export function useNamed(): (content: unknown) => Json {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const configurations = useSettings(project).data?.settings.configurations;
  return useCallback((content) => configurationsNamed(ownNamed(asJson(content), fields), configurations ?? []), [configurations, fields]);
}
