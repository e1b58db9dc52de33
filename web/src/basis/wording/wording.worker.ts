import { BasisWording, Glossary, dismissalOf, type Term, type WordingMark, type WordingRule } from '@caderno/core/basis';
import type { BasisText } from '@caderno/contract';
import { expose } from 'comlink';

/** What the page asks of its wording worker. */
export interface WordingWorker {
  /** Looks through a whole basis; answers how many marks stand in each text that has any. */
  look(texts: readonly BasisText[], glossary: readonly Term[], off: readonly WordingRule[]): Readonly<Record<string, number>>;
  /** The marks of a text as it is being typed, held against the rest of the basis. */
  marks(id: string, text: string): readonly WordingMark[];
}

let wording = new BasisWording(new Glossary([]));

const worker: WordingWorker = {
  look(texts, glossary, off) {
    wording = new BasisWording(new Glossary(glossary), off);
    for (const text of texts) wording.put(text);
    const counts = texts.map(({ id, dismissals }) => [id, wording.marksOf(id).filter((m) => dismissalOf(m, dismissals) === null).length] as const);
    return Object.fromEntries(counts.filter(([, count]) => count > 0));
  },
  marks(id, text) {
    wording.put({ id, text });
    return wording.marksOf(id);
  },
};

expose(worker);
