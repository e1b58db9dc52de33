import { specification, type Specification, type SpecifiedArtefact } from '@caderno/core/specification';
import type { ConditionId } from '@caderno/core/artefacts';
import type { QueryOf, SpecificationRead } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../api/index.ts';
import { layOut, type StateDrawing } from '../models/index.ts';

/** What of the project stands in it. */
export type SpecificationOf = QueryOf<'readSpecification'>;

/** A specification with its drawings; a model that cannot be laid out has none. */
export interface DrawnSpecification extends Specification {
  readonly read: SpecificationRead;
  readonly drawings: ReadonlyMap<ConditionId, StateDrawing>;
}

/** All that is designed, or a part of it, with its drawings; `error`: why it cannot be read. */
export function useSpecification(project: string, of: SpecificationOf): { readonly specified: DrawnSpecification | undefined; readonly error: unknown } {
  const { data: read, error } = useQuery({ queryKey: [project, 'specification', of], queryFn: () => call('readSpecification', { params: { project }, query: of }) });
  const drawings = useQuery({ queryKey: [project, 'drawing', 'specification', of, read?.at], queryFn: () => drawingsOf(read?.artefacts ?? []), enabled: read !== undefined }).data;
  const specified = useMemo(() => (read === undefined || drawings === undefined ? undefined : { ...specification(read.artefacts), read, drawings }), [drawings, read]);
  return { specified, error };
}

async function drawingsOf(artefacts: readonly SpecifiedArtefact[]): Promise<ReadonlyMap<ConditionId, StateDrawing>> {
  const drawings = new Map<ConditionId, StateDrawing>();
  for (const { kind, id, content } of artefacts) {
    if (kind !== 'condition' || content.model.kind !== 'stateTransitions' || content.model.states.length > MOST_DRAWN) continue;
    const drawing = await layOut(content.model).catch(() => null);
    if (drawing !== null) drawings.set(id, drawing);
  }
  return drawings;
}

/** Of more states nothing could be read on a sheet; their transitions stand in a table. */
const MOST_DRAWN = 60;
