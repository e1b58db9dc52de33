import type { ArtefactId, ArtefactKind, ArtefactState, ConditionId, IdOfKind, RequirementId } from '../artefacts/index.ts';
import { byId } from '../baselines/index.ts';
import { orderOutline } from '../basis/index.ts';
import type { ContentOfKind } from '../kinds/index.ts';

/** An artefact of a kind as it stands in a specification; `parent` and `position`: where a requirement stands in the outline. */
export interface Specified<K extends ArtefactKind> {
  readonly kind: K;
  readonly id: IdOfKind[K];
  readonly version: number;
  readonly state: ArtefactState;
  readonly parent: RequirementId | null;
  readonly position: number;
  readonly content: ContentOfKind[K];
}
export type SpecifiedArtefact = { [K in ArtefactKind]: Specified<K> }[ArtefactKind];

/** A requirement with the conditions that are told below it; those of several requirements are told at the first and named at the others. */
export interface SpecifiedRequirement extends Specified<'requirement'> {
  /** From 0. */
  readonly depth: number;
  readonly conditions: readonly Specified<'condition'>[];
  readonly toldElsewhere: readonly ConditionId[];
  /** Cases and features that cover a condition of it. */
  readonly coveredBy: readonly ArtefactId[];
}

/** A design in the order in which it is read. */
export interface Specification {
  readonly requirements: readonly SpecifiedRequirement[];
  /** Conditions of none of these requirements. */
  readonly conditions: readonly Specified<'condition'>[];
  /** By module, those without one last; within it by number. */
  readonly cases: readonly { readonly module: string; readonly cases: readonly Specified<'case'>[] }[];
  readonly features: readonly Specified<'feature'>[];
  readonly shared: readonly Specified<'shared'>[];
  readonly dataSets: readonly Specified<'dataSet'>[];
}

/** Artefacts, each once in whatever order, as a specification. Questions and suites are none of it. */
export function specification(artefacts: readonly SpecifiedArtefact[]): Specification {
  const [conditions, cases] = [ofKind(artefacts, 'condition'), ofKind(artefacts, 'case')];
  const features = ofKind(artefacts, 'feature').sort((a, b) => (a.content.path < b.content.path ? -1 : 1));
  const requirements = told(ofKind(artefacts, 'requirement'), conditions, [...cases, ...features]);
  const below = new Set(requirements.flatMap((r) => r.conditions.map((c) => c.id)));
  return { requirements, conditions: conditions.filter((c) => !below.has(c.id)), cases: byModule(cases), features, shared: ofKind(artefacts, 'shared'), dataSets: ofKind(artefacts, 'dataSet') };
}

/** Those of a kind by their numbers. */
function ofKind<K extends ArtefactKind>(artefacts: readonly SpecifiedArtefact[], kind: K): Specified<K>[] {
  const isOf = (a: SpecifiedArtefact): a is SpecifiedArtefact & Specified<K> => a.kind === kind;
  return artefacts.filter(isOf).sort((a, b) => numberOf(a.id) - numberOf(b.id));
}

/** The outline, with what is told at each place of it. */
function told(requirements: readonly Specified<'requirement'>[], conditions: readonly Specified<'condition'>[], covering: readonly (Specified<'case'> | Specified<'feature'>)[]): SpecifiedRequirement[] {
  const coverers = coveringOf(covering);
  const done = new Set<ConditionId>();
  return orderOutline(requirements).map(({ place, depth }) => {
    const own = conditions.filter((c) => c.content.requirements.some((r) => r.id === place.id));
    const here = own.filter((c) => !done.has(c.id));
    for (const { id } of here) done.add(id);
    const coveredBy = [...new Set(own.flatMap((c) => coverers.get(c.id) ?? []))].sort(byId);
    return { ...place, depth, conditions: here, toldElsewhere: own.flatMap((c) => (here.includes(c) ? [] : [c.id])), coveredBy };
  });
}

/** By conditions, what covers them. */
function coveringOf(covering: readonly (Specified<'case'> | Specified<'feature'>)[]): Map<ConditionId, ArtefactId[]> {
  const all = new Map<ConditionId, ArtefactId[]>();
  for (const one of covering) {
    const covers = one.kind === 'case' ? one.content.covers : one.content.parts.flatMap((part) => part.covers);
    for (const id of new Set(covers.map((c) => c.id))) all.set(id, [...(all.get(id) ?? []), one.id]);
  }
  return all;
}

function byModule(cases: readonly Specified<'case'>[]): Specification['cases'] {
  const modules = [...new Set(cases.map((c) => c.content.module))].sort((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b));
  return modules.map((module) => ({ module, cases: cases.filter((c) => c.content.module === module) }));
}

function numberOf(id: ArtefactId): number {
  return Number(id.slice(2));
}
