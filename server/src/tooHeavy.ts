/** Whether a thread was ended because it took more memory, stack or time than it was given. */
export function isTooHeavy(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  return error.name === 'AbortError' || ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY') || (error instanceof RangeError && /call stack/.test(error.message));
}
