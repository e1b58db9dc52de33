export { termSpans, useGlossary } from './useGlossary.ts';
export { MarkableText } from './MarkableText.tsx';
export type { TextSpan } from './markSpans.ts';
export { SafeMarkdown } from './SafeMarkdown.tsx';
export { MarkdownText } from './MarkdownText.tsx';
export { TextWithTerms } from './TextWithTerms.tsx';
