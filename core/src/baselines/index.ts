export { baselineNumber, sealedLine, type BaselineNumber, type Frozen } from './baseline.ts';
export { comparisonMarkdown, comparisonSheets, type ComparedFigure, type Comparison, type Reached } from './comparisonFile.ts';
export { stepsBack, type BackStep, type PresentStanding } from './bringBack.ts';
export { byId, changedItem, compareFrozen, isMeant, type FrozenChange } from './compare.ts';
