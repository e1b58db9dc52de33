export { Remarks } from './Remarks.tsx';
export { RemarksPage } from './RemarksPage.tsx';
