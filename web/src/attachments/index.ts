export { AttachedFiles } from './AttachedFiles.tsx';
export { Attachments } from './Attachments.tsx';
export { UploadLines } from './UploadLines.tsx';
export { withFiles } from './fileWords.ts';
export { filesPasted } from './useFilesFromOutside.ts';
export { useUploads } from './useUploads.ts';
