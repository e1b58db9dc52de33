import { Glossary, type Term } from '@caderno/core/basis';
import { useMemo } from 'react';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import type { TextSpan } from './markSpans.ts';

const NO_TERMS: readonly Term[] = [];

/** One for each list of terms: every line of a long case looks into it. */
const made = new WeakMap<readonly Term[], Glossary>();

/** The project's glossary, ready to be looked up in. */
export function useGlossary(): Glossary {
  const { project } = useFrame();
  const terms = useSettings(project).data?.settings.glossary ?? NO_TERMS;
  return useMemo(() => glossaryOf(terms), [terms]);
}

function glossaryOf(terms: readonly Term[]): Glossary {
  const known = made.get(terms);
  if (known !== undefined) return known;
  const glossary = new Glossary(terms);
  made.set(terms, glossary);
  return glossary;
}

/** The first place of every term in a text, with its definition. */
export function termSpans(glossary: Glossary, text: string): TextSpan[] {
  const seen = new Set<string>();
  return glossary.placesIn(text).flatMap(({ term, start, end }) => {
    if (seen.has(term.id)) return [];
    seen.add(term.id);
    return [{ id: `term-${term.id}`, start, end, className: 'cad-term', title: `${term.term}: ${term.definition}` }];
  });
}
