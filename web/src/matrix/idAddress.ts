import { parseScenarioId, type ArtefactId } from '@caderno/core/artefacts';
import { address } from '../frame/index.ts';
import type { MatrixId } from './useAxes.ts';

/** The page of what stands on an axis; of a scenario its line in its feature. */
export function idAddress(project: string, id: MatrixId): string {
  return parseScenarioId(id) === null ? address.artefact(project, id as ArtefactId) : address.covering(project, id as never);
}
