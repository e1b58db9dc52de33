import { useEffect, useRef } from 'react';
import { madeOf } from './listed.ts';
import type { KnownProject } from './projectLog.ts';
import { useKnown } from './useProjectLog.ts';

/** Heads whose lines are made at a time: a key that is pressed meanwhile waits for no more than a few milliseconds. */
export const AT_A_TIME = 500;

/** Makes what lists show of cases and conditions, of which there may be tens of thousands, part after part. */
export function* listedInParts(known: KnownProject): Generator<void> {
  for (const list of [known.heads.lists.case, known.heads.lists.condition]) {
    for (let from = 0; from < list.length; from += AT_A_TIME) {
      madeOf(known, list.slice(from, from + AT_A_TIME));
      yield;
    }
  }
}

/** Once for a project, while nothing else is to be done: its first list of 20 000 lines opens a quarter of a second earlier. */
export function useListedAhead(project: string): void {
  const known = useKnown(project);
  const ready = useRef<string | null>(null);
  useEffect(() => {
    if (known === null || known.coverage === null || ready.current === project) return;
    const parts = listedInParts(known);
    return whenIdle(() => {
      if (parts.next().done !== true) return true;
      ready.current = project;
      return false;
    });
  }, [known, project]);
}

/** Works whenever the browser has nothing else to do, as long as the work says that there is more; answers how to stop it. */
function whenIdle(work: () => boolean): () => void {
  let stopped = false;
  const go = (): void => {
    if (!stopped && work()) later(go);
  };
  later(go);
  return () => {
    stopped = true;
  };
}

/** Not all browsers tell when they are idle. */
function later(go: () => void): void {
  if ('requestIdleCallback' in window) window.requestIdleCallback(go);
  else setTimeout(go, 20);
}
