import { kindOfId, type ArtefactId, type ConditionId, type RequirementId } from '@caderno/core/artefacts';
import type { QuestionSubject } from '@caderno/core/basis';
import type { RemarkThread } from '@caderno/core/remarks';
import { isElementList, isRecord, type Json } from '@caderno/core/versions';

/** What a question is about that a remark becomes: the requirement and its words, the condition, or what a case covers. */
export function subjectsOf(id: ArtefactId, content: Json, { place, said }: Pick<RemarkThread, 'place' | 'said'>): QuestionSubject[] {
  switch (kindOfId(id)) {
    case 'requirement':
      return [{ kind: 'requirement', id: id as RequirementId, words: place.words === null ? '' : said, holds: false }];
    case 'condition':
      return [{ kind: 'condition', id: id as ConditionId, items: [], holds: false }];
    case 'case':
      return isRecord(content) && isElementList(content.covers) ? content.covers.map((c): QuestionSubject => ({ kind: 'condition', id: c.id as ConditionId, items: [], holds: false })) : [];
    case 'shared':
    case 'dataSet':
    case 'feature':
    case 'suite':
    case 'question':
      return [];
  }
}

/** What the question is called: the first line of what was said. */
export function questionTitle(text: string): string {
  return text.trim().split('\n')[0]?.replaceAll(/[*_`#>]/g, '').trim() ?? '';
}
