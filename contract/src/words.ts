import type { ArtefactKind, ArtefactState } from '@caderno/core/artefacts';

/** What artefacts of a kind are called, one and many. */
export const KIND_NAME: Record<ArtefactKind, readonly [string, string]> = {
  requirement: ['requirement', 'requirements'], condition: ['condition', 'conditions'], case: ['case', 'cases'], question: ['question', 'questions'], shared: ['shared steps', 'shared steps'], dataSet: ['data set', 'data sets'], feature: ['feature', 'features'], suite: ['suite', 'suites'],
};

/** What states are called. */
export const STATE_WORD: Record<ArtefactState, string> = { draft: 'Draft', inReview: 'In review', agreed: 'Agreed', withdrawn: 'Withdrawn' };
