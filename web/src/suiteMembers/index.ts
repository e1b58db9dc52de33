export { AddToSuite } from './AddToSuite.tsx';
export { InSuites } from './InSuites.tsx';
export { newEntryId } from './newEntryId.ts';
export { TickMembers, type Ticked } from './TickMembers.tsx';
export { TouchedDialog } from './TouchedDialog.tsx';
export { useSuitesOf } from './useSuitesOf.ts';
export { useMemberTitle, type MemberTitle } from './memberTitle.ts';
