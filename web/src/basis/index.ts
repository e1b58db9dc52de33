export { BasisChapter } from './BasisChapter.tsx';
export { GlossaryPage } from './GlossaryPage.tsx';
export { SuspectPage } from './SuspectPage.tsx';
export { MarkdownText } from './MarkdownText.tsx';
export { Outline } from './Outline.tsx';
export { MarkableText } from './MarkableText.tsx';
export { MEND_WORDS, RULE_WORD } from './wording/wordingWords.ts';
export { TextWithTerms } from './TextWithTerms.tsx';
export type { TextSpan } from './markSpans.ts';
