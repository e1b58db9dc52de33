import type { CaseContent } from './testCase.ts';

const PROCEDURE = [['Objective', 'objective'], ['Preconditions', 'preconditions']] as const;
const CHARTER = [['Mission', 'objective'], ['Areas', 'areas'], ['Ideas', 'ideas'], ['Preconditions', 'preconditions']] as const;

/** The texts of a case that are to be known before its first step, as they are written: those that say something, each with what it is called. */
export function textsBefore(content: Pick<CaseContent, 'kind' | 'objective' | 'areas' | 'ideas' | 'preconditions'>): { readonly word: string; readonly text: string }[] {
  return (content.kind === 'charter' ? CHARTER : PROCEDURE).flatMap(([word, field]) => {
    const text = content[field].trim();
    return text === '' ? [] : [{ word, text }];
  });
}
