export { createApp } from './app.ts';
export { ChangeFeed, type Heard } from './changeFeed.ts';
export { createLog, type Log } from './log.ts';
export { LOOPBACK_NAMES } from './hosts.ts';
export { ProjectNews, type NewsItem } from './projectNews.ts';
export { Stopping } from './stopping.ts';
export { isDatabaseGone, isDiskFull } from './problem.ts';
export { makeParts, type PartsGiven } from './parts.ts';
export type { Parts } from './context.ts';
