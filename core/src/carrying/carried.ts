import type { ArtefactId, ArtefactKind, IdOfKind, Priority, RequirementId } from '../artefacts/index.ts';
import type { OwnField } from '../fields/index.ts';
import type { ContentOfKind } from '../kinds/index.ts';
import type { Constant } from '../shared/index.ts';

/** Where an artefact was written first. It stays itself in whichever project it stands: so nothing is there twice. */
export interface FirstWritten {
  /** The project, by an id that no two have. */
  readonly project: string;
  readonly id: ArtefactId;
}

/** A version that is carried along: the latest, or one that something else in the file is pinned to, or was made from. */
export interface CarriedVersion<C> {
  readonly version: number;
  /** The version it is where the artefact was written first; null: it was written elsewhere since. */
  readonly first: number | null;
  readonly content: C;
}

/** An artefact on its way to another project; what it names is named as in the project it comes from. */
export interface Carried<K extends ArtefactKind> {
  readonly kind: K;
  readonly id: IdOfKind[K];
  readonly first: FirstWritten;
  /** The requirement it stands below; of requirements only. */
  readonly under: RequirementId | null;
  /** Ascending; the last is the latest. */
  readonly versions: readonly CarriedVersion<ContentOfKind[K]>[];
  /** What it was when it was brought into the project it comes from; null: it was written there. */
  readonly base: ContentOfKind[K] | null;
}
export type CarriedArtefact = { [K in ArtefactKind]: Carried<K> }[ArtefactKind];

/** A part of a project with all that it uses, as a file carries it. */
export interface CarriedDesign {
  readonly project: { readonly id: string; readonly key: string; readonly name: string };
  /** In an order in which what stands below another comes after it. */
  readonly artefacts: readonly CarriedArtefact[];
  /** The fields of the project's own that have values in it. */
  readonly fields: readonly OwnField[];
  /** The constants that stand in its texts; of a secret one the name alone. */
  readonly constants: readonly Constant[];
  /** The labels of depths that stand in it, from shallow to deep. */
  readonly depths: readonly string[];
  /** The priorities that stand in it, the highest first. */
  readonly priorities: readonly Priority[];
}

/** The versions of an artefact, each with its kind beside it. */
export function latestOf<K extends ArtefactKind>(carried: Carried<K>): CarriedVersion<ContentOfKind[K]> {
  const latest = carried.versions.at(-1);
  if (latest === undefined) throw new Error(`A carried artefact has a version: expected one of ${carried.id}, got none`);
  return latest;
}
