import { useMemo } from 'react';
import Markdown from 'react-markdown';
import rehypeSanitize from 'rehype-sanitize';
import remarkGfm from 'remark-gfm';
import { markSpans, type TextSpan } from './markSpans.ts';

const NO_SPANS: readonly TextSpan[] = [];

/** Longest text rendered as Markdown; beyond it plain text is shown, so that no text can freeze the page. */
const LONGEST_MARKDOWN = 60_000;

/** Markdown, sanitised, with spans of its source marked. HTML in it is shown as text, never taken. */
export function SafeMarkdown({ text, spans = NO_SPANS }: { readonly text: string; readonly spans?: readonly TextSpan[] }) {
  const plugins = useMemo(() => [rehypeSanitize, [markSpans, spans]] as never, [spans]);
  if (text.length > LONGEST_MARKDOWN) return <pre className="whitespace-pre-wrap break-words font-serif">{text}</pre>;
  return (
    <div className="prose-text break-words">
      <Markdown remarkPlugins={[remarkGfm]} rehypePlugins={plugins}>
        {text}
      </Markdown>
    </div>
  );
}
