import { TRACE_TYPES, withSeen, type ArtefactId, type ArtefactKind, type Kind, type Link, type NamedVersion, type PinOf, type SeenLink, type Targets } from '../artefacts/index.ts';
import { questionKind, requirementKind, type QuestionContent, type RequirementContent } from '../basis/index.ts';
import { caseKind, type CaseContent } from '../cases/index.ts';
import { conditionKind, type ConditionContent } from '../conditions/index.ts';
import { dataSetKind, type DataSetContent } from '../dataSets/index.ts';
import { featureKind, type FeatureContent } from '../scenarios/index.ts';
import { sharedKind, type SharedContent } from '../shared/index.ts';
import { suiteKind, type SuiteContent } from '../suites/index.ts';

/** The content that artefacts of a kind have. */
export interface ContentOfKind {
  requirement: RequirementContent;
  condition: ConditionContent;
  case: CaseContent;
  question: QuestionContent;
  shared: SharedContent;
  dataSet: DataSetContent;
  feature: FeatureContent;
  suite: SuiteContent;
}
/** A content of any kind. */
export type Content = ContentOfKind[ArtefactKind];

/** A content that says its kind: what is stored, sent and checked everywhere. */
export type KindAndContent<K extends ArtefactKind = ArtefactKind> = { [P in K]: { readonly kind: P; readonly content: ContentOfKind[P] } }[K];

/** All kinds of artefact. Whatever differs from kind to kind in the computation stands here or is computed from it. */
export const KINDS: { readonly [K in ArtefactKind]: Kind<ContentOfKind[K]> } = {
  requirement: requirementKind,
  condition: conditionKind,
  case: caseKind,
  question: questionKind,
  shared: sharedKind,
  dataSet: dataSetKind,
  feature: featureKind,
  suite: suiteKind,
};

/** The part of a content whose change makes trace links to it suspect: compared as canonical JSON. */
export function meaningOf<K extends ArtefactKind>({ kind, content }: KindAndContent<K>): unknown {
  return KINDS[kind].meaning(content);
}

/** All links a content holds. */
export function linksOf<K extends ArtefactKind>({ kind, content }: KindAndContent<K>): readonly Link[] {
  return KINDS[kind].links(content);
}

const TRACE: ReadonlySet<string> = new Set(TRACE_TYPES);

/** The versions a content names: seen by its trace links, pinned by its uses, grown from, settled in. */
export function versionsNamedIn<K extends ArtefactKind>(value: KindAndContent<K>): NamedVersion[] {
  const seen = linksOf(value).flatMap((link) => (TRACE.has(link.type) ? [{ id: link.to, version: link.seenVersion }] : []));
  return [...seen, ...KINDS[value.kind].versionsNamed(value.content)];
}

/** The texts an artefact is found by besides its title. */
export function wordsOf<K extends ArtefactKind>({ kind, content }: KindAndContent<K>): readonly string[] {
  return [...KINDS[kind].words(content), ...Object.values(content.own).flat()];
}

/** The content with its trace links to these targets brought up to the versions seen; never back. */
export function withTargetsSeen<K extends ArtefactKind>({ kind, content }: KindAndContent<K>, seen: ReadonlyMap<ArtefactId, number>): KindAndContent<K> {
  return withTraceLinks({ kind, content } as KindAndContent<K>, (link) => withSeen(link, seen.get(link.id) ?? 0));
}

/** The content with each of its trace links replaced. */
export function withTraceLinks<K extends ArtefactKind>({ kind, content }: KindAndContent<K>, replace: <L extends SeenLink>(link: L) => L): KindAndContent<K> {
  return { kind, content: KINDS[kind].withTraceLinks(content, replace) } as KindAndContent<K>;
}

/** The content with all that it names led to where that stands in another project; what leads nowhere is left out. */
export function withTargets<K extends ArtefactKind>({ kind, content }: KindAndContent<K>, targets: Targets): KindAndContent<K> {
  return { kind, content: KINDS[kind].withTargets(content, targets) } as KindAndContent<K>;
}

/** What is to be saved, as the server saves it after `before`; null: it is new. */
export function settledValue<K extends ArtefactKind>(value: KindAndContent<K>, before: KindAndContent | null): KindAndContent<K> {
  const { kind, content } = value;
  const settle = KINDS[kind].settled;
  // A head is of the kind of what follows it.
  return settle === null ? value : ({ kind, content: settle(content, (before?.content ?? null) as typeof content | null) } as KindAndContent<K>);
}

/** The content with its uses pinned as is said of what it uses; the very same when none is another, null when its kind uses nothing. */
export function withPins<K extends ArtefactKind>(value: KindAndContent<K>, pinOf: PinOf): KindAndContent<K> | null {
  const { kind, content } = value;
  const pin = KINDS[kind].withPins;
  if (pin === null) return null;
  const pinned = pin(content, pinOf);
  return pinned === content ? value : { kind, content: pinned };
}

/** The content with all pinned uses of an artefact moved on to a version; those of a later one, and those that follow, stay. */
export function withPinsOn<K extends ArtefactKind>(value: KindAndContent<K>, of: ArtefactId, version: number): KindAndContent<K> | null {
  return withPins(value, (used, pinned) => (used === of && typeof pinned === 'number' && pinned < version ? version : pinned));
}
