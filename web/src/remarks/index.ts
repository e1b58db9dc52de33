export { Remarks } from './Remarks.tsx';
export type { PagePlace } from './useLastPlace.ts';
export { RemarksPage } from './RemarksPage.tsx';
