export { findAdditions, measureSuite, readShowing, readSuiteCells, type Measuring } from './measure.ts';
export { basisOf, readReachOfSuite } from './reach.ts';
export { rulesFind } from './rules.ts';
export { SuiteLines } from './suiteLines.ts';
export { readSuitesOf } from './suitesOf.ts';
