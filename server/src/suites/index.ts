export { findAdditions, findMembers, measureSuite, readCandidates, readShowing, readSuiteCells, suiteChoices, type Measuring } from './measure.ts';
export { knownMembers } from './memberFacts.ts';
export { basisOf, readReachOfSuite, readSuite } from './reach.ts';
export { rulesFind } from './rules.ts';
export { SuiteLines } from './suiteLines.ts';
export { readSuitesOf } from './suitesOf.ts';
