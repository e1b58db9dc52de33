export { NumberLine, type StandingItem } from './NumberLine.tsx';
export { PrintedTable } from './PrintedTable.tsx';
export { ruleText } from './ruleText.ts';
export { MOST_LABELLED, labelLines, layOut, type StateBox, type StateDrawing } from './stateLayout.ts';
export { ArrowHead, StateBoxDrawn, StateLine } from './StateShapes.tsx';
