import type { ConditionId } from '@caderno/core/artefacts';
import type { ConditionCoverage, Design, DesignChange } from '@caderno/core/coverage';
import { wrap, type Remote } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { Sender, useBeside } from '../worker/index.ts';
import type { CoverageWorker } from './coverage.worker.ts';

let shared: Remote<CoverageWorker> | null = null;

function worker(): Remote<CoverageWorker> {
  shared ??= wrap<CoverageWorker>(new Worker(new URL('./coverage.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

const NOTHING: ReadonlyMap<ConditionId, ConditionCoverage> = new Map();

/** The coverage of a part of the design with what is being typed taken in, computed beside the page. */
export function useLiveCoverage(design: Design | undefined, change: DesignChange | null): ReadonlyMap<ConditionId, ConditionCoverage> {
  const opened = useOpened(design);
  const input = useMemo(() => ({ opened, change }), [change, opened]);
  return useBeside(input, compute)?.output ?? NOTHING;
}

interface Opened {
  readonly number: number;
  readonly changes: Sender<DesignChange | null>;
}

async function compute({ opened, change }: { readonly opened: Opened | null; readonly change: DesignChange | null }): Promise<ReadonlyMap<ConditionId, ConditionCoverage>> {
  return opened === null ? NOTHING : new Map((await worker().compute(opened.number, opened.changes.pack(change))).map((c) => [c.id, c]));
}

/** The design as the worker knows it; null until it does. An older one is closed once the newer is open. */
function useOpened(design: Design | undefined): Opened | null {
  const [opened, setOpened] = useState<Opened | null>(null);
  useEffect(() => {
    if (design === undefined) return undefined;
    let wanted = true;
    void worker()
      .open(design)
      .then((number) => (wanted ? setOpened({ number, changes: new Sender() }) : worker().close(number)));
    return () => {
      wanted = false;
    };
  }, [design]);
  useEffect(() => (opened === null ? undefined : () => void worker().close(opened.number)), [opened]);
  return opened;
}
