import type { ArtefactKind, ArtefactState } from '@caderno/core/artefacts';
import type { Risk } from '@caderno/core/basis';
import type { Technique } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';

/** What artefacts of a kind are called, one and many. */
export const KIND_NAME: Record<ArtefactKind, readonly [string, string]> = {
  requirement: ['requirement', 'requirements'], condition: ['condition', 'conditions'], case: ['case', 'cases'], question: ['question', 'questions'], shared: ['shared steps', 'shared steps'], dataSet: ['data set', 'data sets'], feature: ['feature', 'features'], suite: ['suite', 'suites'],
};

/** What states are called. */
export const STATE_WORD: Record<ArtefactState, string> = { draft: 'Draft', inReview: 'In review', agreed: 'Agreed', withdrawn: 'Withdrawn' };

/** What risks are called. */
export const RISK_WORD: Record<Risk, string> = { high: 'High risk', medium: 'Medium risk', low: 'Low risk' };

/** What standings of coverage items are called. */
export const STANDING_WORD: Record<Standing, string> = { shown: 'shown', linked: 'linked only', gap: 'gap', waiting: 'waiting for an answer', suspect: 'suspect', leftOut: 'left out' };

/** What techniques are called. */
export const TECHNIQUE_WORD: Record<Technique, string> = {
  partitions: 'Partitions',
  boundaries: 'Boundary values',
  decisionTable: 'Decision tables',
  stateTransitions: 'State transitions',
  combination: 'Combinations',
  plain: 'Plain conditions',
};
