export { createApp } from './app.ts';
export { ChangeFeed } from './changeFeed.ts';
export { createLog, type Log } from './log.ts';
export { isDatabaseGone } from './problem.ts';
export type { Parts } from './context.ts';
