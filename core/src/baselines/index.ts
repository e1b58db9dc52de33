export { baselineNumber, sealedLine, type BaselineNumber, type Frozen } from './baseline.ts';
export { byId, changedItem, compareFrozen, type FrozenChange } from './compare.ts';
