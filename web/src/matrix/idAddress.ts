import { isScenarioId } from '@caderno/core/artefacts';
import { address } from '../frame/index.ts';
import type { MatrixId } from './useAxes.ts';

/** The page of what stands on an axis; of a scenario its line in its feature. */
export function idAddress(project: string, id: MatrixId): string {
  return isScenarioId(id) ? address.covering(project, id) : address.artefact(project, id);
}
