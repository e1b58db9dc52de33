export { readingCopy, type CopiedField, type CopiedInstance, type CopiedPart, type CopiedStep, type ReadingCopy } from './readingCopy.ts';
