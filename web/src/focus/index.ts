export { focusBelow, followFocus } from './fallenFocus.ts';
export { isDialogOpen, isMeantForPage } from './whatIsMeant.ts';
