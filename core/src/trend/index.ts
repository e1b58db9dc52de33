export { bends, requirementsThen, trendFigures, type Bend, type RequirementsThen, type SuiteChoice, type SuiteThen, type TrendFigures } from './trendFigures.ts';
export { TREND_MEASURES, TREND_PARTS, measuresOf, requirementLine, trendLines, type TrendLine, type TrendMeasure, type TrendPart } from './trendLines.ts';
export { nextToCount } from './nextToCount.ts';
