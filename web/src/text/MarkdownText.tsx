import { memo, useMemo } from 'react';
import Markdown from 'react-markdown';
import rehypeSanitize from 'rehype-sanitize';
import remarkGfm from 'remark-gfm';
import { markSpans, type TextSpan } from './markSpans.ts';
import { termSpans, useGlossary } from './useGlossary.ts';

interface Props {
  readonly text: string;
  readonly spans?: readonly TextSpan[];
}

const NO_SPANS: readonly TextSpan[] = [];

/** Longest text rendered as Markdown; beyond it plain text is shown, so that no text can freeze the page. */
const LONGEST_MARKDOWN = 60_000;

/** Markdown, sanitised, with spans of its source marked and the glossary's terms explained where they first occur. HTML in it is shown as text, never taken. */
export const MarkdownText = memo(function MarkdownText({ text, spans = NO_SPANS }: Props) {
  const glossary = useGlossary();
  const plugins = useMemo(() => [rehypeSanitize, [markSpans, [...spans, ...termSpans(glossary, text)]]] as never, [glossary, spans, text]);
  if (text.length > LONGEST_MARKDOWN) return <pre className="whitespace-pre-wrap break-words font-serif">{text}</pre>;
  return (
    <div className="prose-text break-words">
      <Markdown remarkPlugins={[remarkGfm]} rehypePlugins={plugins}>
        {text}
      </Markdown>
    </div>
  );
});
