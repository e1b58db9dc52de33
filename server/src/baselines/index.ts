export { bringBack } from './bringBack.ts';
export { exportComparison } from './comparison.ts';
export { planBringBack } from './planBack.ts';
export { checkSeal } from './check.ts';
export { baselineHead, changesBetween, compareBaselines, listBaselines, listFrozen, readBaseline, readFrozen } from './read.ts';
export { freeze, rowsOfPart, takeBaseline } from './take.ts';
export { findTouched } from './touched.ts';
