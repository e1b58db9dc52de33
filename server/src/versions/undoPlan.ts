import type { ArtefactState } from '@caderno/core/artefacts';
import type { ImportBase } from '@caderno/core/exchange';
import type { ProjectSettings } from '@caderno/contract';

/** A requirement's place as stored: row ids, so that it survives as data. */
export interface StoredPlace {
  readonly parentId: string | null;
  readonly position: number;
}

/** How to undo a part of a command. Each kind's undoing is again a part with a plan. */
export type UndoPlan =
  | { readonly kind: 'content'; readonly from: number; readonly to: number }
  | { readonly kind: 'existence'; readonly exists: boolean }
  | { readonly kind: 'state'; readonly from: ArtefactState; readonly to: ArtefactState }
  | { readonly kind: 'place'; readonly from: StoredPlace; readonly to: StoredPlace }
  | { readonly kind: 'settings'; readonly from: ProjectSettings; readonly to: ProjectSettings }
  /** What an import remembers of a requirement. */
  | { readonly kind: 'imported'; readonly from: ImportBase | null; readonly to: ImportBase | null };
