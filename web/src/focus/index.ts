export { focusBelow, followFocus } from './fallenFocus.ts';
export { isDialogOpen, isMeantForPage, type KeyEffect } from './whatIsMeant.ts';
