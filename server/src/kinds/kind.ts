import type { ArtefactId, ArtefactKind, ArtefactState, Priority } from '@caderno/core/artefacts';
import type { Risk, RiskScale } from '@caderno/core/basis';
import type { OwnValues } from '@caderno/core/fields';
import type { ContentOfKind, SummaryOfKind } from '@caderno/contract';
import type { z } from 'zod';

/** The columns lists sort and filter by, taken from a content. `facts` is what only its kind has. */
export interface SummaryColumns<F extends object = object> {
  readonly title: string;
  readonly module: string;
  readonly risk: Risk | null;
  readonly priority: Priority | null;
  readonly owner: string;
  readonly tags: string[];
  readonly facts: F;
}

/** What heads of all kinds have. */
export interface CommonHead {
  readonly title: string;
  readonly state: ArtefactState;
  readonly version: number;
  readonly meaningSince: number;
  readonly agreed: number | null;
  readonly module: string;
  readonly own: OwnValues;
  readonly author: string;
  readonly at: string;
  readonly broken: boolean;
}

/** The columns of a stored artefact that are not of every kind. */
export interface OwnColumns {
  readonly number: number;
  readonly parent: ArtefactId | null;
  readonly position: number;
  readonly risk: Risk | null;
  readonly priority: Priority | null;
  readonly owner: string;
  readonly tags: string[];
}

/** How artefacts of a kind are stored beside their contents, and how their heads come back; all kinds stand in `STORED_KINDS`. */
export interface StoredKind<K extends ArtefactKind, F extends object> {
  readonly facts: z.ZodType<F>;
  /** What a head says where its facts cannot be read. */
  readonly noFacts: F;
  columns(content: ContentOfKind[K], scale: RiskScale): SummaryColumns<F>;
  summary(head: CommonHead, own: OwnColumns, facts: F): SummaryOfKind[K];
}
