import type { ArtefactId } from '@caderno/core/artefacts';
import type { FoundInArtefact } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';

type Place = Pick<FoundInArtefact, 'id' | 'path'>;

/** Which places are to be changed: all that are found, but those that were unticked. */
export interface Ticks {
  readonly has: (place: Place) => boolean;
  readonly set: (places: readonly Place[], on: boolean) => void;
  /** How many are not ticked. */
  readonly without: number;
  readonly untickedPaths: () => { id: ArtefactId; paths: string[] }[];
}

/** Ticks of one search; another one begins with all ticked. */
export function useTicks(of: string): Ticks {
  const [kept, setKept] = useState<{ readonly of: string; readonly off: ReadonlyMap<string, Place> }>({ of, off: new Map() });
  if (kept.of !== of) setKept({ of, off: new Map() });
  const set = useCallback(
    (places: readonly Place[], on: boolean) =>
      setKept((before) => {
        const off = new Map(before.off);
        for (const { id, path } of places) {
          if (on) off.delete(`${id} ${path}`);
          else off.set(`${id} ${path}`, { id, path });
        }
        return { ...before, off };
      }),
    [],
  );
  return useMemo(
    () => ({
      has: ({ id, path }) => !kept.off.has(`${id} ${path}`),
      set,
      without: kept.off.size,
      untickedPaths: () => {
        const paths = new Map<ArtefactId, string[]>();
        for (const { id, path } of kept.off.values()) paths.set(id, [...(paths.get(id) ?? []), path]);
        return [...paths].map(([id, some]) => ({ id, paths: some }));
      },
    }),
    [kept.off, set],
  );
}
