import type { ArtefactState } from '@caderno/core/artefacts';

/** A requirement's place as stored: row ids, so that it survives as data. */
export interface StoredPlace {
  readonly parentId: string | null;
  readonly position: number;
}

/** How to undo a command. Each kind's undoing is again a command with a plan. */
export type UndoPlan =
  | { readonly kind: 'content'; readonly from: number; readonly to: number }
  | { readonly kind: 'existence'; readonly exists: boolean }
  | { readonly kind: 'state'; readonly from: ArtefactState; readonly to: ArtefactState }
  | { readonly kind: 'place'; readonly from: StoredPlace; readonly to: StoredPlace };
