export { FILES_COLUMN, FilesBeside, filesCell, filesMarkdown, type Attached, type AttachedFile, type FileBeside } from './filesBeside.ts';
export { ATTACHMENT_TYPES, ENDINGS, PICTURE_TYPES, attachmentForm, attachmentId, isAttachmentType, safeFileName, type Attachment, type AttachmentForm, type AttachmentId, type AttachmentType, type PictureType } from './attachment.ts';
