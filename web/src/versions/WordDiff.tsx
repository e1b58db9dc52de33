import { diffWords } from '@caderno/core/versions';

/** What changed between two texts, word by word. */
export function WordDiff({ from, to }: { readonly from: string; readonly to: string }) {
  return diffWords(from, to).map((part, i) => {
    if (part.kind === 'added') return <ins key={i} className="bg-pine-wash text-pine no-underline">{part.text}</ins>;
    if (part.kind === 'removed') return <del key={i} className="bg-brick-wash text-brick">{part.text}</del>;
    return <span key={i}>{part.text}</span>;
  });
}
