export { DEEPEST_PART, EMPTY_SUITE, entryId, pickedMembers, type EntryId, type SuiteContent, type SuiteEntry, type SuiteMember, type SuitePart, type SuiteRule } from './suite.ts';
export { ownerOf, suiteKind } from './suiteKind.ts';
export { configurationsRun, withConfiguration, type RunsIn, type RunsInPlace } from './runsIn.ts';
export { partsWithRules, runsInAround, suiteMembers, type FoundMember, type RulesFind } from './members.ts';
export { endOfEntry, entryMoved, entryPutBefore, partSetIn, withEntryPinned, withMemberMoved, withMembers, withoutEntries } from './entries.ts';
export { brokenDependencies, suiteFigures, type BrokenDependency, type Dependency, type MemberFacts, type SuiteFigures, type SuiteMemberFigures } from './figures.ts';
export { entriesInOrder, inTimeProblem, membersInOrder, riskCurve, type Ordering } from './inTime.ts';
export { TOUCHES, touchOf, touchedEntries, touchedScenarios, type FeatureTouch, type Touch, type TouchedMember, type TouchedScenario } from './touched.ts';
export { SMALLER_BY, costOf, costWord, leftOut, smallerProblem, type LeftMember, type ShowingMember, type ShowingMembers, type SmallerBy } from './smaller.ts';
