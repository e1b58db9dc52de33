import { useSyncExternalStore } from 'react';

const MINUTE = 60_000;

let now = Date.now();
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | null = null;

function listen(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(() => {
    now = Date.now();
    for (const tell of listeners) tell();
  }, MINUTE);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0 || timer === null) return;
    clearInterval(timer);
    timer = null;
  };
}

/** The time to the minute, in milliseconds since 1970: what is told of ages grows old with it. */
export function useNow(): number {
  return useSyncExternalStore(listen, () => now);
}
