export { SharedChapter } from './SharedChapter.tsx';
export { TakeOutDialog, type Owner } from './TakeOutDialog.tsx';
export { usePutBack } from './usePutBack.ts';
export { useRename } from './useRename.tsx';
export { AlikePage } from './AlikePage.tsx';
export { SharedIndex } from './SharedIndex.tsx';
