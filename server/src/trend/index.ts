export { TrendCounter } from './trendCounter.ts';
export { countTrend } from './trendCount.ts';
export { isDayCounted, readBends, readBendsNow, readRequirementTrend, readTrend } from './readTrend.ts';
