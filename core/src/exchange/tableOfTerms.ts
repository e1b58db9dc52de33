import type { Term } from '../basis/index.ts';
import type { SourceDocument } from './sourceDocument.ts';

/** Which columns of a table hold terms, what they mean, and other forms of them. */
export interface TermColumns {
  readonly term: string;
  readonly definition: string;
  readonly forms: string | null;
}

/** A table of terms, read: `leftOut` are the lines with a term or meaning too long to keep. */
export interface TermsRead {
  readonly terms: readonly Omit<Term, 'id'>[];
  readonly leftOut: readonly number[];
}

/** What a glossary becomes when terms are brought in. */
export interface TermsPlan {
  readonly glossary: readonly Term[];
  readonly added: readonly Term[];
  readonly changed: readonly { readonly from: Term; readonly to: Term }[];
  readonly same: number;
}

const TERM = /^(?:terms?|words?|names?|expressions?|concepts?|abbreviations?|acronyms?|begriffe?|wort|termes?|mots?|términos?|palabras?|termos?|palavras?|begrepp|ord)$/i;
const DEFINITION = /definition|meaning|explanation|description|^means$|bedeutung|erklärung|définition|signification|definición|significado|definição|betydelse|förklaring/i;
const FORMS = /synonym|sinónim|sinônim|other forms?|^forms?$|plural|also|alias/i;

/** The columns by their names; else the first is the term and the one with most text its meaning. Null: fewer than two columns. */
export function guessTermColumns({ columns, records }: SourceDocument): TermColumns | null {
  const written = (at: number): number => records.reduce((sum, { cells }) => sum + (cells[at] ?? '').length, 0);
  const term = columns.find((name) => TERM.test(name.trim())) ?? columns[0];
  if (term === undefined || columns.length < 2) return null;
  const others = columns.filter((name) => name !== term);
  const forms = others.find((name) => FORMS.test(name)) ?? null;
  const longest = others.filter((name) => name !== forms).sort((a, b) => written(columns.indexOf(b)) - written(columns.indexOf(a)))[0];
  const definition = others.find((name) => DEFINITION.test(name)) ?? longest;
  return definition === undefined ? null : { term, definition, forms };
}

/** The terms of a table, each once: of two lines with the same term the later is meant. Forms are parted by commas, semicolons or lines. */
export function readTerms({ columns, records }: SourceDocument, from: TermColumns, most: { readonly term: number; readonly definition: number; readonly forms: number }): TermsRead {
  const at = (name: string | null): number => (name === null ? -1 : columns.indexOf(name));
  const [termAt, definitionAt, formsAt] = [at(from.term), at(from.definition), at(from.forms)];
  const terms = new Map<string, Omit<Term, 'id'>>();
  const leftOut: number[] = [];
  for (const { line, cells } of records) {
    const term = (cells[termAt] ?? '').replaceAll(/\s+/g, ' ').trim();
    const definition = (cells[definitionAt] ?? '').trim();
    const forms = (cells[formsAt] ?? '').split(/[,;\n]/).map((f) => f.trim()).filter((f) => f !== '' && f.length <= most.term);
    if (term === '') continue;
    if (term.length > most.term || definition.length > most.definition) leftOut.push(line);
    else terms.set(term.toLowerCase(), { term, forms: [...new Set(forms)].slice(0, most.forms), definition });
  }
  return { terms: [...terms.values()], leftOut };
}

/**
 * A glossary with terms brought in: found again by their words in any case, not by their forms, which several terms may
 * share; an empty meaning or no forms take nothing away. `mostForms`: further ones are not added.
 */
export function planTerms(glossary: readonly Term[], read: readonly Omit<Term, 'id'>[], newId: () => string, mostForms: number): TermsPlan {
  const known = new Map(glossary.map((t) => [t.term.toLowerCase(), t]));
  const added: Term[] = [];
  const changed = new Map<string, { readonly from: Term; readonly to: Term }>();
  for (const term of read) {
    const here = known.get(term.term.toLowerCase());
    if (here === undefined) {
      added.push({ id: newId(), ...term });
      continue;
    }
    const forms = [...new Set([...here.forms, ...term.forms])].slice(0, Math.max(mostForms, here.forms.length));
    const to: Term = { ...here, definition: term.definition === '' ? here.definition : term.definition, forms };
    if (to.definition !== here.definition || forms.length !== here.forms.length) changed.set(here.id, { from: here, to });
  }
  return { glossary: [...glossary.map((t) => changed.get(t.id)?.to ?? t), ...added], added, changed: [...changed.values()], same: read.length - added.length - changed.size };
}
