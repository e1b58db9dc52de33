export { SharedChapter } from './SharedChapter.tsx';
export { TakeOutDialog, type Owner } from './TakeOutDialog.tsx';
export { Reach, UsedBy } from './UsedBy.tsx';
export { usePutBack } from './usePutBack.ts';
export { PinnedUsers } from './PinnedUsers.tsx';
export { useRename } from './useRename.tsx';
export { AlikePage } from './AlikePage.tsx';
export { ReuseGraphPage } from './graph/ReuseGraphPage.tsx';
export { SharedIndex } from './SharedIndex.tsx';
