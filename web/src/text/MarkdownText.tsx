import { memo, useMemo } from 'react';
import type { TextSpan } from './markSpans.ts';
import { SafeMarkdown } from './SafeMarkdown.tsx';
import { termSpans, useGlossary } from './useGlossary.ts';

interface Props {
  readonly text: string;
  readonly spans?: readonly TextSpan[];
}

const NO_SPANS: readonly TextSpan[] = [];

/** {@link SafeMarkdown} with the glossary's terms explained where they first occur. */
export const MarkdownText = memo(function MarkdownText({ text, spans = NO_SPANS }: Props) {
  const glossary = useGlossary();
  const all = useMemo(() => [...spans, ...termSpans(glossary, text)], [glossary, spans, text]);
  return <SafeMarkdown text={text} spans={all} />;
});
