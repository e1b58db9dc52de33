export { BasisChapter } from './BasisChapter.tsx';
export { MarkdownText } from './MarkdownText.tsx';
export { Outline } from './Outline.tsx';
export { markedSource } from './markedSource.ts';
export type { TextSpan } from './markSpans.ts';
