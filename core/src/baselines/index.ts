export { baselineNumber, sealedLine, type BaselineNumber, type Frozen } from './baseline.ts';
export { stepsBack, type BackStep, type PresentStanding } from './bringBack.ts';
export { byId, changedItem, compareFrozen, isMeant, type FrozenChange } from './compare.ts';
