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

/**
 * ms from what somebody does, a click unless it says otherwise, until a frame after something is on the page, told by the page itself: who asks from outside again and
 * again whether it is there takes the page's own time.
 */
export async function timeToOpen(page: Page, act: () => Promise<void>, isThere: string, event: 'click' | 'input' = 'click'): Promise<number> {
  const opened = page.evaluate<number>(`new Promise((done) => {
    const look = (from) => requestAnimationFrame(() => ((${isThere}) ? requestAnimationFrame(() => done(performance.now() - from)) : look(from)));
    addEventListener('${event}', (e) => look(e.timeStamp), { capture: true, once: true });
  })`);
  await act();
  return opened;
}
