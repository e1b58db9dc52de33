export { SharedChapter } from './SharedChapter.tsx';
export { TakeOutDialog } from './TakeOutDialog.tsx';
export { Reach, UsedBy } from './UsedBy.tsx';
export { usePutBack } from './usePutBack.ts';
