import { termSpans, useGlossary } from './useGlossary.ts';

/** Plain text in which the glossary's terms show their definitions where they first occur. */
export function TextWithTerms({ text }: { readonly text: string }) {
  const spans = termSpans(useGlossary(), text);
  if (spans.length === 0) return text;
  const ends = [0, ...spans.map((s) => s.end)];
  return (
    <>
      {spans.map((span, i) => (
        <span key={span.id}>
          {text.slice(ends[i], span.start)}
          <span className={span.className} title={span.title}>
            {text.slice(span.start, span.end)}
          </span>
        </span>
      ))}
      {text.slice(ends.at(-1))}
    </>
  );
}
