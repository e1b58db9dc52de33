import type { ConditionContent, ItemKey } from '@caderno/core/conditions';
import type { Filling, GapFilling } from '@caderno/core/coverage';
import { wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { FillingSoFar, FillingWorker } from './filling.worker.ts';

/** Steps in one turn, after which progress is shown. */
const STEPS = 2_000;
/** Steps after which the search rests: the same for all, so that the same seed makes the same rows. */
const STEPS_BEFORE_REST = 60_000;

interface Wanted {
  readonly content: ConditionContent;
  readonly items: readonly ItemKey[];
  readonly how: Filling;
  readonly mostItems: number;
}

export interface FillingState {
  readonly filling: GapFilling | null;
  readonly searching: boolean;
  readonly smallest: boolean;
  readonly steps: number;
  readonly stop: () => void;
  /** Looks for fewer rows until stopped. */
  readonly goOn: () => void;
}

/** What would show items, made beside the page; rows of a combination get fewer while one looks on. */
export function useFilling({ content, items, how, mostItems }: Wanted): FillingState {
  const [soFar, setSoFar] = useState<FillingSoFar | null>(null);
  const [searching, setSearching] = useState(true);
  const worker = useRef<{ remote: Remote<FillingWorker>; end: () => void } | null>(null);
  const running = useRef(0);

  const search = useCallback(async (until: number, first: Promise<FillingSoFar>): Promise<void> => {
    running.current += 1;
    const run = running.current;
    let state = await first;
    while (run === running.current) {
      setSoFar(state);
      if (state.done || state.steps >= until || worker.current === null) break;
      state = await worker.current.remote.improve(STEPS);
    }
    if (run === running.current) setSearching(false);
  }, []);

  useEffect(() => {
    const thread = new Worker(new URL('./filling.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<FillingWorker>(thread);
    worker.current = { remote, end: () => thread.terminate() };
    void search(STEPS_BEFORE_REST, remote.begin(content, items, how, mostItems));
    return () => {
      running.current += 1;
      worker.current = null;
      thread.terminate();
    };
  }, [content, how, items, mostItems, search]);

  const stop = (): void => {
    running.current += 1;
    setSearching(false);
  };
  const goOn = (): void => {
    if (worker.current === null) return;
    setSearching(true);
    void search(Infinity, worker.current.remote.improve(STEPS));
  };
  return { filling: soFar?.filling ?? null, searching, smallest: soFar?.done ?? false, steps: soFar?.steps ?? 0, stop, goOn };
}
