import type { ArtefactId } from './artefact.ts';
import type { SeenLink } from './suspect.ts';

/** `derives`, `covers` and `serves` are trace links, which a change of meaning makes suspect; the others are not. */
export const TRACE_TYPES = ['derives', 'covers', 'serves'] as const;
export type TraceType = (typeof TRACE_TYPES)[number];
export type LinkType = TraceType | 'relates' | 'asks' | 'uses' | 'dependsOn';

/**
 * The version that a use means: a number is pinned; null follows the latest; `agreed` follows the one that is agreed last, or
 * the latest where none is.
 */
export type Pin = number | 'agreed' | null;

/** A link that a content holds. */
export interface Link {
  readonly to: ArtefactId;
  readonly type: LinkType;
  /** 1 where it is no trace link. */
  readonly seenVersion: number;
  /** For `uses`: what is loosest of several: null where any follows the latest, `agreed` where any follows that, else the latest version that one is pinned to. */
  readonly pinned: Pin;
}

export interface NamedVersion {
  readonly id: ArtefactId;
  readonly version: number;
}

/** Where what a content names stands in another project. */
export interface Targets {
  /** Null: it is not there. */
  id<I extends ArtefactId>(id: I): I | null;
  /** The version there that says what this version of it said. */
  version(id: ArtefactId, version: number): number;
}

/** A trace link, or whatever else names an artefact by its id, led elsewhere; none where it leads nowhere. */
export function ledTo<L extends { readonly id: ArtefactId }>(link: L, targets: Targets): L[] {
  const id = targets.id(link.id);
  if (id === null) return [];
  return ['seenVersion' in link && typeof link.seenVersion === 'number' ? { ...link, id, seenVersion: targets.version(link.id, link.seenVersion) } : { ...link, id }];
}

/** What a use is to mean, by what it uses and what it meant so far. */
export type PinOf = (used: ArtefactId, pinned: Pin) => Pin;

/** What a kind of artefact says of its contents; all kinds stand in `KINDS`. A new kind has a file with one of these. */
export interface Kind<C> {
  /** What it is before anybody wrote anything. */
  readonly empty: C;
  /** The part whose change makes trace links to it suspect. Compared as canonical JSON. */
  meaning(content: C): unknown;
  links(content: C): readonly Link[];
  /** Versions that it names besides those its trace links saw: pinned by its uses, grown from, settled in. */
  versionsNamed(content: C): readonly NamedVersion[];
  /** The texts it is found by besides its title. */
  words(content: C): readonly string[];
  /** The content with each of its trace links replaced. */
  withTraceLinks(content: C, replace: <L extends SeenLink>(link: L) => L): C;
  /** The content with all that it names led elsewhere; what leads nowhere is left out. */
  withTargets(content: C, targets: Targets): C;
  /** What is to be saved, with what only the server can tell of it, as numbers that are never used again. `before`: its head so far; null: it is new. Null: the kind has nothing of the sort. */
  readonly settled: ((content: C, before: C | null) => C) | null;
  /** The content with each of its uses pinned as is said of what it uses; the very same when none is another. Null: the kind uses nothing. */
  readonly withPins: ((content: C, pinOf: PinOf) => C) | null;
}

export function traceLink(type: TraceType, { id, seenVersion }: SeenLink): Link {
  return { to: id, type, seenVersion, pinned: null };
}

export function plainLink(type: Exclude<LinkType, TraceType>, to: ArtefactId, pinned: Pin = null): Link {
  return { to, type, seenVersion: 1, pinned };
}
