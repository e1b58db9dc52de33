import type { Page } from '@playwright/test';

// As texts: what compiles this file leaves helpers in functions that the page does not have.
const WATCH = `
  globalThis.frames98 = [];
  let last = performance.now();
  const frame = (now) => {
    globalThis.frames98.push(now - last);
    last = now;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);`;
const READ = '[...globalThis.frames98].sort((a, b) => a - b)';

/** The times between the frames that a page draws during an action, a share of the way from the shortest to the longest. */
export async function frameTime(page: Page, share: number, action: () => Promise<void>): Promise<number> {
  await page.evaluate(WATCH);
  await action();
  const frames = (await page.evaluate(READ)) as number[];
  return frames[Math.floor(frames.length * share)] ?? 0;
}
