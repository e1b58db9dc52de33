import { isPassing } from './failure.ts';

/** Longest wait between two attempts; a server may be away for an hour. */
const LONGEST_MS = 60_000;

/**
 * Sends something again and again while the server, its database or its disk is not there for the moment; told once
 * that it waits. Only for what is harmless to send twice. @throws what is not passing.
 */
export async function untilTaken<T>(send: () => Promise<T>, firstMs: number, onWaiting: (error: unknown) => void): Promise<T> {
  for (let pause = firstMs, told = false; ; pause = Math.min(pause * 1.5, LONGEST_MS)) {
    try {
      return await send();
    } catch (error) {
      if (!isPassing(error)) throw error;
      if (!told) onWaiting(error);
      told = true;
    }
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
}
