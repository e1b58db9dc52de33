export { bringBack } from './bringBack.ts';
export { exportComparison } from './comparison.ts';
export { isMomentToBeMade, openMoment, sweepMoments } from './moment.ts';
export { planBringBack } from './planBack.ts';
export { checkSeal } from './check.ts';
export { compareBaselines, listBaselines, listFrozen, readBaseline, readFrozen } from './read.ts';
export { freeze, takeBaseline } from './take.ts';
