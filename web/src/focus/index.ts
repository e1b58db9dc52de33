export { focusBelow, followFocus } from './fallenFocus.ts';
export { goOnInAdded } from './goOnInAdded.ts';
export { isDialogOpen, isMeantForPage } from './whatIsMeant.ts';
