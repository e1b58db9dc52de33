import { holeShown, piecesOf, type PhraseKey } from '@caderno/core/scenarios';
import type { ShownPhrase } from '../usePhrases.ts';

/** Words of a phrase that another one has not are marked: they are what the two differ in. */
export function PhraseText({ phrase: { key, holes }, against }: { readonly phrase: Pick<ShownPhrase, 'key' | 'holes'>; readonly against?: PhraseKey }) {
  const known = against === undefined ? null : wordsOf(against);
  const pieces = piecesOf(key);
  const holeBefore = (at: number): number => pieces.slice(0, at).filter((p) => p.kind === 'hole').length;
  return (
    <span>
      {pieces.map((piece, i) => {
        if (piece.kind === 'hole') return <span key={i} className="cad-parameter font-mono text-[0.9em]">{holeShown(holes[holeBefore(i)] ?? 'placeholder')}</span>;
        return known === null ? piece.text : <Words key={i} text={piece.text} known={known} />;
      })}
    </span>
  );
}

function wordsOf(key: PhraseKey): ReadonlySet<string> {
  return new Set(piecesOf(key).flatMap((piece) => (piece.kind === 'words' ? piece.text.toLowerCase().split(/\s+/) : [])));
}

function Words({ text, known }: { readonly text: string; readonly known: ReadonlySet<string> }) {
  return text.split(/(\s+)/).map((word, i) => (word.trim() === '' || known.has(word.toLowerCase()) ? word : <mark key={i} className="bg-transparent font-semibold text-ochre-ink">{word}</mark>));
}
