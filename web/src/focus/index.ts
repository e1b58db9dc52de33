export { focusBelow, followFocus } from './fallenFocus.ts';
export { isDialogOpen, isMeantForPage, type Deed } from './whatIsMeant.ts';
