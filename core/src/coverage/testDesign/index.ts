export { byReading, C, condition, designOf, K, question, R, ranges, reading, requirement, testCase } from './testDesign.ts';
export { MODELS } from './testModels.ts';
export { after, calling, change, dataSet, limit, sharedSteps, sharedUse, taking, withData } from './testChanges.ts';
