import { TRACE_TYPES, artefactId, type ArtefactId, type ArtefactKind, type RequirementId, type Targets } from '../artefacts/index.ts';
import { linksOf, withTargets, withTargetsSeen, withTraceLinks, type KindAndContent } from '../kinds/index.ts';
import { asJson, mergeContent, sameJson, type Conflict, type Json, type Side } from '../versions/index.ts';
import { latestOf, type CarriedArtefact, type CarriedDesign, type FirstWritten } from './carried.ts';

/** What stands here already of an artefact that a file carries. */
export interface StandsHere {
  readonly id: ArtefactId;
  readonly head: number;
  readonly value: KindAndContent;
  /** What it was when it was brought last, or when it left; null: unknown. */
  readonly base: KindAndContent | null;
  /** Versions here, by what they are where it was written first. */
  readonly versions: ReadonlyMap<number, number>;
}

/** What a project has of what is carried to it. */
export interface CarriedTo {
  readonly here: (first: FirstWritten) => StandsHere | null;
  /** The numbers that new artefacts get, from these on. */
  readonly firstNew: Readonly<Record<ArtefactKind, number>>;
  /** Makes a content one of this project, but for what it names. `isLatest`: whether what stays out of it is to be told. */
  readonly settle: (value: KindAndContent, isLatest: boolean) => KindAndContent;
}

/** What becomes of an artefact that a file carries. */
export type PlannedCarry = {
  readonly carried: CarriedArtefact;
  readonly id: ArtefactId;
  /** What it is remembered as: what the next file is told apart from. */
  readonly base: KindAndContent;
  /** Versions here, by what they are where it was written first: those known before, and those that come. */
  readonly versions: ReadonlyMap<number, number>;
} & (
  | { readonly kind: 'added'; readonly contents: readonly KindAndContent[]; readonly under: RequirementId | null }
  | { readonly kind: 'changed'; readonly value: KindAndContent; readonly before: KindAndContent; readonly conflicts: readonly Conflict[] }
  | { readonly kind: 'same' }
);

/** What carrying a part of one project into another does. */
export interface CarryPlan {
  /** In the order of the file. */
  readonly planned: readonly PlannedCarry[];
  /** Links to what is neither in the file nor here. */
  readonly linksOut: number;
}

/** Which side counts where an artefact changed here and in the file, by its id in the file. */
export type CarryChoices = ReadonlyMap<string, Side>;

/** What names versions of others comes after those: only then it is known which version they get. */
const RANK: Readonly<Record<ArtefactKind, number>> = { requirement: 0, condition: 1, dataSet: 2, shared: 3, case: 4, feature: 5, suite: 6, question: 7 };

/**
 * Plans what a file brings: an artefact that stands here already, by where it was written first, is changed where the
 * file changed it and kept where only this project did; the others are added. Carried twice it changes nothing.
 */
export function planCarry(design: Pick<CarriedDesign, 'artefacts'>, to: CarriedTo, choices: CarryChoices = new Map()): CarryPlan {
  return new Planning(design.artefacts, to, choices).plan();
}

/** Conflicts that nobody has chosen a side in, by the id of their artefact in the file. */
export function openCarryConflicts({ planned }: CarryPlan, choices: CarryChoices): ArtefactId[] {
  return planned.flatMap((p) => (p.kind === 'changed' && p.conflicts.length > 0 && !choices.has(p.carried.id) ? [p.carried.id] : []));
}

class Planning {
  readonly #artefacts: readonly CarriedArtefact[];
  readonly #to: CarriedTo;
  readonly #choices: CarryChoices;
  readonly #byId: ReadonlyMap<ArtefactId, CarriedArtefact>;
  readonly #standing = new Map<ArtefactId, StandsHere>();
  readonly #ids = new Map<ArtefactId, ArtefactId>();
  readonly #done = new Map<ArtefactId, PlannedCarry>();
  #linksOut = 0;

  constructor(artefacts: readonly CarriedArtefact[], to: CarriedTo, choices: CarryChoices) {
    this.#artefacts = artefacts;
    this.#to = to;
    this.#choices = choices;
    this.#byId = new Map(artefacts.map((a) => [a.id, a]));
    const next = { ...to.firstNew };
    for (const { kind, id, first } of artefacts) {
      const standing = to.here(first);
      if (standing !== null) this.#standing.set(id, standing);
      this.#ids.set(id, standing?.id ?? artefactId(kind, next[kind]++));
    }
  }

  plan(): CarryPlan {
    for (const carried of this.#inOrder()) this.#done.set(carried.id, this.#one(carried));
    return { planned: this.#artefacts.flatMap((a) => this.#done.get(a.id) ?? []), linksOut: this.#linksOut };
  }

  /** Kinds by rank; within shared steps and cases what is used comes before what uses it. */
  #inOrder(): CarriedArtefact[] {
    const order = new Set<CarriedArtefact>();
    const begun = new Set<ArtefactId>();
    const visit = (root: CarriedArtefact): void => {
      // A stack and no recursion: calls may be nested deep.
      const stack: { readonly carried: CarriedArtefact; readonly isDone: boolean }[] = [{ carried: root, isDone: false }];
      for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
        if (at.isDone) order.add(at.carried);
        if (at.isDone || begun.has(at.carried.id)) continue;
        begun.add(at.carried.id);
        stack.push({ carried: at.carried, isDone: true });
        for (const link of linksOf(latestValue(at.carried))) {
          const used = this.#byId.get(link.to);
          if (link.type === 'uses' && used !== undefined && !begun.has(used.id)) stack.push({ carried: used, isDone: false });
        }
      }
    };
    for (const carried of this.#artefacts.toSorted((a, b) => RANK[a.kind] - RANK[b.kind])) visit(carried);
    return [...order];
  }

  #one(carried: CarriedArtefact): PlannedCarry {
    const standing = this.#standing.get(carried.id);
    const id = this.#idHere(carried.id);
    const latest = this.#settled(carried, latestOf(carried).content, true);
    this.#linksOut += linksOf(latestValue(carried)).filter((link) => !this.#ids.has(link.to)).length;
    if (standing === undefined) {
      const versions = new Map(carried.versions.flatMap(({ first }, i) => (first === null ? [] : [[first, i + 1] as const])));
      const under = carried.under === null ? null : this.#idHere(carried.under);
      return { kind: 'added', carried, id, base: latest, versions, contents: [...carried.versions.slice(0, -1).map((v) => this.#settled(carried, v.content)), latest], under };
    }
    const base = carried.base === null ? standing.base : this.#settled(carried, carried.base);
    const { value, conflicts } = this.#merged(carried.id, standing.value, base ?? standing.value, latest);
    const { first } = latestOf(carried);
    const isSame = conflicts.length === 0 && sameJson(asJson(value.content), asJson(standing.value.content));
    const now = isSame ? standing.head : standing.head + 1;
    const versions = first === null || standing.versions.has(first) ? standing.versions : new Map([...standing.versions, [first, now]]);
    return isSame ? { kind: 'same', carried, id, base: latest, versions } : { kind: 'changed', carried, id, base: latest, versions, value, before: standing.value, conflicts };
  }

  #merged(id: ArtefactId, mine: KindAndContent, base: KindAndContent, theirs: KindAndContent): { readonly value: KindAndContent; readonly conflicts: readonly Conflict[] } {
    // Which version somebody had in view is merged by itself: the later one counts on either side.
    const seen = new Map([...seenIn(theirs), ...seenIn(mine)]);
    const contents: [Json, Json, Json] = [asJson(withSeenAs(base, seen).content), asJson(mine.content), asJson(withSeenAs(theirs, seen).content)];
    const { content, conflicts } = mergeContent(...contents);
    const side = this.#choices.get(id);
    const chosen = side === undefined || conflicts.length === 0 ? content : mergeContent(...contents, new Map(conflicts.map((c) => [c.path, side]))).content;
    // What is merged of two contents of a kind is one of it; it is checked by its schema before it is written.
    const merged = { kind: mine.kind, content: chosen } as unknown as KindAndContent;
    return { value: withTargetsSeen(merged, seenIn(theirs)), conflicts };
  }

  #settled(carried: CarriedArtefact, content: CarriedArtefact['versions'][number]['content'], isLatest = false): KindAndContent {
    return withTargets(this.#to.settle({ kind: carried.kind, content } as KindAndContent, isLatest), this.#targets);
  }

  #idHere<I extends ArtefactId>(id: I): I {
    return this.#targets.id(id) ?? id;
  }

  readonly #targets: Targets = {
    // An id of a kind stays one of that kind.
    id: <I extends ArtefactId>(id: I) => (this.#ids.get(id) ?? null) as I | null,
    version: (id, version) => this.#versionHere(id, version),
  };

  /** The version here that says what a version of the file said; the latest where none does. */
  #versionHere(id: ArtefactId, version: number): number {
    const carried = this.#byId.get(id);
    const standing = this.#standing.get(id);
    if (carried === undefined) return version;
    const place = carried.versions.findIndex((v) => v.version === version);
    if (standing === undefined) return (place < 0 ? carried.versions.length : place + 1);
    const first = carried.versions[place]?.first ?? null;
    const known = first === null ? undefined : standing.versions.get(first);
    if (known !== undefined) return known;
    return this.#done.get(id)?.kind === 'changed' ? standing.head + 1 : standing.head;
  }
}

/** The versions that trace links saw, by what they lead to. */
function seenIn(value: KindAndContent): Map<ArtefactId, number> {
  return new Map(linksOf(value).flatMap((link) => (TRACE_TYPES.some((type) => type === link.type) ? [[link.to, link.seenVersion] as const] : [])));
}

function withSeenAs(value: KindAndContent, seen: ReadonlyMap<ArtefactId, number>): KindAndContent {
  return withTraceLinks(value, (link) => ({ ...link, seenVersion: seen.get(link.id) ?? link.seenVersion }));
}

function latestValue(carried: CarriedArtefact): KindAndContent {
  return { kind: carried.kind, content: latestOf(carried).content } as KindAndContent;
}
