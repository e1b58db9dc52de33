export { MOST_HANDED_OFF, configurationNames, handOffLines, handOffNumber, lineKey, personalShares, type HandOffLine, type HandOffNumber, type HandedMember, type PersonalShare } from './handOff.ts';
export { DIVIDINGS, divide, type Dividing } from './dividing.ts';
export { DOUBTS, doubtsOfContent, leavesOut, type Doubt } from './doubts.ts';
export { executedInstances, type ExecutedInstance, type ExecutedStep, type HandedOff } from './executed.ts';
export { HAND_OFF_COLUMNS, handOffMarkdown, handOffName, handOffRows, headLines, type HandOffHead } from './handOffFile.ts';
export { HAND_OFF_FORMAT, handOffJson } from './handOffJson.ts';
export { MOST_ON_A_PAGE, handOffPage, type PictureOf } from './handOffPage.ts';
export { RETURNED_TABLE, notedWords, notesOfTable, returnedProposals, withNames, type HandedBefore, type Returned, type ReturnedNote, type ReturnedProposal, type UnplacedNote } from './returned.ts';
