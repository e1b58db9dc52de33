import { isCaseId, parseScenarioId, type CoveringId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { scenarioForReading } from '@caderno/core/scenarios';
import { useMemo } from 'react';
import { useArtefact } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useWording } from '../phrases/index.ts';
import type { ReadArtefact } from './readPlace.ts';

/** Of a case or a scenario what is read of it; `content` null: the feature has no such scenario, undefined: it is not there yet. */
export interface Readable {
  readonly content: CaseContent | null | undefined;
  /** The case, or the feature of the scenario, with what is being written of it. */
  readonly artefact: ReadArtefact | null;
  readonly error: Error | null;
}

/** A case, or a scenario as one, with what is being written of it. */
export function useReadable(id: CoveringId): Readable {
  const { project } = useFrame();
  const wording = useWording(project);
  const scenario = parseScenarioId(id);
  const number = scenario?.number ?? 0;
  const { data, error } = useArtefact<'case' | 'feature'>(project, scenario === null ? 'case' : 'feature', scenario?.feature ?? (isCaseId(id) ? id : 'C-0'));
  const content = useMemo(() => {
    if (data === undefined) return undefined;
    const written = data.draft?.content ?? data.content;
    return 'parts' in written ? scenarioForReading(written, number, wording) : written;
  }, [data, wording, number]);
  const artefact = useMemo<ReadArtefact | null>(() => (data === undefined ? null : { id: data.summary.id, version: data.summary.version, content: data.draft?.content ?? data.content }), [data]);
  return { content, artefact, error };
}
