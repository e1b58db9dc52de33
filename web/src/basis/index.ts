export { BasisChapter } from './BasisChapter.tsx';
export { GlossaryPage } from './GlossaryPage.tsx';
export { SuspectPage } from './SuspectPage.tsx';
export { MarkdownText } from './MarkdownText.tsx';
export { Outline } from './Outline.tsx';
export { markedSource } from './markedSource.ts';
export { MEND_WORDS, RULE_WORD } from './wording/wordingWords.ts';
export { termSpans, useGlossary } from './useGlossary.ts';
export type { TextSpan } from './markSpans.ts';
