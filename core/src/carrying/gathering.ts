import { ARTEFACT_KINDS, TRACE_TYPES, isSuspect, kindOfId, parseArtefactId, type ArtefactId, type Priority, type RequirementId } from '../artefacts/index.ts';
import { orderOutline } from '../basis/index.ts';
import type { OwnField } from '../fields/index.ts';
import { linksOf, versionsNamedIn, withTraceLinks, type KindAndContent } from '../kinds/index.ts';
import { masked, type Constant } from '../shared/index.ts';
import type { CarriedArtefact, FirstWritten } from './carried.ts';

/** An artefact at a version; null: the latest. */
export interface Along {
  readonly id: ArtefactId;
  readonly version: number | null;
}

/** What is known of an artefact besides its versions. */
export interface Standing {
  readonly id: ArtefactId;
  readonly head: number;
  readonly meaningSince: number;
  readonly under: RequirementId | null;
  /** Its place among those below the same; of requirements only. */
  readonly position: number;
  readonly first: FirstWritten;
  /** What each version that was brought is where it was written first. */
  readonly firstVersions: ReadonlyMap<number, number>;
  /** Whether it was written in this project. */
  readonly isOurs: boolean;
  readonly base: KindAndContent | null;
}

/** A version that was read. */
export interface ReadVersion {
  readonly id: ArtefactId;
  readonly version: number;
  readonly value: KindAndContent;
}

const TRACE: ReadonlySet<string> = new Set(TRACE_TYPES);

/**
 * Gathers what has to come along with some artefacts: all they use, cover, derive from, serve, depend on, ask about and
 * stand below, each at its latest version, at those that something is pinned to, and where a link is suspect at the
 * version somebody had in view, so that it still is elsewhere. Relations between requirements lead out of what is
 * carried and bring nothing along. It asks for what it has not read until nothing is wanted.
 */
export class Gathering {
  readonly #roots: readonly ArtefactId[];
  readonly #standing = new Map<ArtefactId, Standing>();
  readonly #read = new Map<ArtefactId, Map<number, KindAndContent>>();
  readonly #asked = new Set<string>();

  constructor(roots: readonly ArtefactId[]) {
    this.#roots = roots;
  }

  /** What has to be read next; empty: all is there. What was asked for and did not come is gone, and is not asked for again. */
  wanted(): Along[] {
    const all = new Map<string, Along>();
    const want = (along: Along): void => void all.set(keyOf(along), along);
    for (const id of this.#roots) want({ id, version: null });
    for (const { under } of this.#standing.values()) if (under !== null) want({ id: under, version: null });
    for (const value of this.#values()) for (const along of this.#alongWith(value)) want(along);
    const fresh = [...all].filter(([key]) => !this.#asked.has(key));
    for (const [key] of fresh) this.#asked.add(key);
    return fresh.map(([, along]) => along);
  }

  take(standing: readonly Standing[], versions: readonly ReadVersion[]): void {
    for (const one of standing) this.#standing.set(one.id, one);
    for (const { id, version, value } of versions) {
      const known = this.#read.get(id) ?? new Map<number, KindAndContent>();
      this.#read.set(id, known.set(version, value));
    }
  }

  /** All that was gathered: kind by kind, requirements in the order of the outline, others by their numbers. */
  artefacts(): CarriedArtefact[] {
    return this.#inOrder().flatMap((standing): CarriedArtefact[] => {
      const versions = [...(this.#read.get(standing.id) ?? [])].sort(([a], [b]) => a - b);
      if (!versions.some(([version]) => version === standing.head)) return [];
      const carried = {
        kind: kindOfId(standing.id),
        id: standing.id,
        first: standing.first,
        under: standing.under !== null && this.#standing.has(standing.under) ? standing.under : null,
        versions: versions.map(([version, value]) => ({ version, first: standing.isOurs ? version : (standing.firstVersions.get(version) ?? null), content: this.#asSeen(value).content })),
        base: standing.base?.content ?? null,
      };
      // An id and its contents are of one kind.
      return [carried as unknown as CarriedArtefact];
    });
  }

  #inOrder(): Standing[] {
    const all = [...this.#standing.values()];
    const places = all.flatMap((s) => (isRequirement(s.id) ? [{ id: s.id, parent: s.under, position: s.position, standing: s }] : []));
    const others = all.filter((s) => !isRequirement(s.id)).sort((a, b) => rankOf(a.id) - rankOf(b.id) || (parseArtefactId(a.id)?.number ?? 0) - (parseArtefactId(b.id)?.number ?? 0));
    return [...orderOutline(places).map(({ place }) => place.standing), ...others];
  }

  *#values(): Iterable<KindAndContent> {
    for (const versions of this.#read.values()) yield* versions.values();
    for (const { base } of this.#standing.values()) if (base !== null) yield base;
  }

  #alongWith(value: KindAndContent): Along[] {
    const links = linksOf(value).filter((link) => link.type !== 'relates');
    const reached = new Set<ArtefactId>(links.map((link) => link.to));
    const traced = links.filter((link) => TRACE.has(link.type));
    const seen = new Set(traced.map((link) => keyOf({ id: link.to, version: link.seenVersion })));
    const suspect = traced.filter((link) => isSuspect(link, this.#standing.get(link.to))).map((link): Along => ({ id: link.to, version: link.seenVersion }));
    const pinned = versionsNamedIn(value).filter((named) => reached.has(named.id) && !seen.has(keyOf(named)));
    const under = value.kind === 'condition' && value.content.under !== null ? [value.content.under] : [];
    return [...[...reached, ...under].map((id): Along => ({ id, version: null })), ...suspect, ...pinned];
  }

  /** A link that is not suspect saw the latest, as far as anybody elsewhere can tell. */
  #asSeen(value: KindAndContent): KindAndContent {
    return withTraceLinks(value, (link) => {
      const target = this.#standing.get(link.id);
      return target === undefined || isSuspect(link, target) ? link : { ...link, seenVersion: target.head };
    });
  }
}

function keyOf({ id, version }: Along): string {
  return `${id}@${version ?? ''}`;
}

function isRequirement(id: ArtefactId): id is RequirementId {
  return kindOfId(id) === 'requirement';
}

function rankOf(id: ArtefactId): number {
  return ARTEFACT_KINDS.indexOf(kindOfId(id));
}

/** The constants that stand in contents; of a secret one no value. */
export function constantsIn(contents: readonly unknown[], constants: readonly Constant[]): Constant[] {
  const texts = contents.map((content) => JSON.stringify(content));
  return masked(constants.filter(({ name }) => texts.some((text) => text.includes(`<${name}>`))));
}

/** The priorities of a project that stand in contents. */
export function prioritiesIn(contents: readonly object[], priorities: readonly Priority[]): Priority[] {
  const used = new Set(contents.map((content) => ('priority' in content ? content.priority : null)));
  return priorities.filter((priority) => used.has(priority));
}

/** The fields of a project's own that have values in contents. */
export function fieldsIn(contents: readonly { readonly own: Readonly<Record<string, unknown>> }[], fields: readonly OwnField[]): OwnField[] {
  const used = new Set(contents.flatMap(({ own }) => Object.keys(own)));
  return fields.filter((field) => used.has(field.id));
}
