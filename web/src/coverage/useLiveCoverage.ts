import type { ConditionId } from '@caderno/core/artefacts';
import type { ConditionCoverage, Design, DesignChange } from '@caderno/core/coverage';
import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { CoverageWorker } from './coverage.worker.ts';

let shared: Remote<CoverageWorker> | null = null;

function worker(): Remote<CoverageWorker> {
  shared ??= wrap<CoverageWorker>(new Worker(new URL('./coverage.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

const NOTHING: ReadonlyMap<ConditionId, ConditionCoverage> = new Map();

/** The coverage of a part of the design with what is being typed taken in, computed beside the page. */
export function useLiveCoverage(design: Design | undefined, change: DesignChange | null): ReadonlyMap<ConditionId, ConditionCoverage> {
  const [coverages, setCoverages] = useState(NOTHING);
  useEffect(() => {
    if (design === undefined) return undefined;
    let wanted = true;
    void worker()
      .compute(design, change === null ? [] : [change])
      .then((computed) => {
        // An answer that a later keystroke has overtaken is dropped.
        if (wanted) setCoverages(new Map(computed.map((c) => [c.id, c])));
      });
    return () => {
      wanted = false;
    };
  }, [change, design]);
  return coverages;
}
