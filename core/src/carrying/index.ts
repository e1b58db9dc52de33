export { latestOf, type Carried, type CarriedArtefact, type CarriedDesign, type CarriedVersion, type FirstWritten } from './carried.ts';
export { Gathering, constantsIn, fieldsIn, prioritiesIn, type Along, type ReadVersion, type Standing } from './gathering.ts';
export { Settling, type SettledIn, type SettledSettings, type StaysOut } from './settling.ts';
export { openCarryConflicts, planCarry, type CarriedTo, type CarryChoices, type CarryPlan, type PlannedCarry, type StandsHere } from './carryPlan.ts';
