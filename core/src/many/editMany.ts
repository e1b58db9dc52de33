import type { CaseId, ConditionId, DataSetId, Pin, Priority, RequirementId, SharedId } from '../artefacts/index.ts';
import type { RequirementContent, RequirementType, Risk, RiskScale } from '../basis/index.ts';
import { newCover, type CaseContent, type CaseKind, type Execution } from '../cases/index.ts';
import type { ConditionContent } from '../conditions/index.ts';
import { ownFieldsOf, withOwnValue, type OwnField, type OwnFieldId, type OwnValue } from '../fields/index.ts';
import { OwnKinds, reworded, scenariosTagged, withDetailReworded, withFeatureTag, withFeatureTagsRenamed, withName, withWrittenFor, withoutWrittenFor, type FeatureContent, type OwnValueKind, type PhraseKey } from '../scenarios/index.ts';
import { withPins, withPinsOn, type KindAndContent } from '../kinds/index.ts';

/** What is set alike in many artefacts by one command. */
export type ManyEdit =
  | { readonly kind: 'title'; readonly title: string }
  | { readonly kind: 'module'; readonly module: string }
  | { readonly kind: 'priority'; readonly priority: Priority }
  /** Of a question: whom it is asked of. */
  | { readonly kind: 'owner'; readonly owner: string }
  /** A tag is added, or taken away. */
  | { readonly kind: 'tag'; readonly tag: string; readonly belongs: boolean }
  /** Tags are called otherwise, or taken away (null). */
  | { readonly kind: 'tags'; readonly from: readonly string[]; readonly to: string | null }
  /** Minutes to execute a case once; null: not estimated. */
  | { readonly kind: 'minutes'; readonly minutes: number | null }
  | { readonly kind: 'caseKind'; readonly caseKind: CaseKind }
  | { readonly kind: 'execution'; readonly execution: Execution }
  /** Cases cover a condition as it is in a version, or no longer. */
  | { readonly kind: 'covers'; readonly condition: ConditionId; readonly seenVersion: number; readonly belongs: boolean }
  /** A risk of one's own choice; a rating goes. */
  | { readonly kind: 'risk'; readonly risk: Risk }
  /** One part of a rating, as a place on its scale from 0; the other part begins in the middle. */
  | { readonly kind: 'rating'; readonly part: 'likelihood' | 'impact'; readonly step: number }
  | { readonly kind: 'type'; readonly type: RequirementType }
  /** Conditions are derived from a requirement as it is in a version: besides what they are derived from, or in the place of one of these. */
  | { readonly kind: 'derivedFrom'; readonly requirement: RequirementId; readonly seenVersion: number; readonly insteadOf: RequirementId | null }
  /** Conditions belong to a depth of testing, or no longer. */
  | { readonly kind: 'depth'; readonly depth: string; readonly belongs: boolean }
  /** Features are written for a requirement as it is in a version, with the scenarios that a tag expression finds (empty: as a whole), or no longer. */
  | { readonly kind: 'writtenFor'; readonly requirement: RequirementId; readonly seenVersion: number; readonly belongs: boolean; readonly tags: string }
  /** Steps of some phrases are worded as another one. */
  | { readonly kind: 'wording'; readonly from: readonly PhraseKey[]; readonly to: PhraseKey }
  /** A field of the project's own; null empties it. */
  | { readonly kind: 'own'; readonly field: OwnFieldId; readonly value: OwnValue | null }
  /** All pinned uses of something move on to a version; those of a later one stay. */
  | { readonly kind: 'pins'; readonly of: SharedId | CaseId | DataSetId; readonly version: number }
  /** All uses of something mean that from now on. */
  | { readonly kind: 'uses'; readonly of: SharedId | CaseId | DataSetId; readonly pinned: Pin };

/** What of a project's settings an edit depends on. */
export interface EditingProject {
  /** Where a rating begins. */
  readonly riskScale: RiskScale;
  readonly fields: readonly OwnField[];
  readonly valueKinds: readonly OwnValueKind[];
}

/**
 * A content after an edit; the very same when it changes nothing, null when artefacts of its kind have no such thing.
 */
export function editMany(edit: ManyEdit, value: KindAndContent, { riskScale, fields, valueKinds }: EditingProject): KindAndContent | null {
  switch (edit.kind) {
    case 'title':
      // A feature is called what its file says.
      if (value.kind === 'feature') return ofFeature(value, (content) => withName(content, edit.title));
      return value.content.title === edit.title ? value : ({ kind: value.kind, content: { ...value.content, title: edit.title } } as KindAndContent);
    case 'module':
      return withField(value, 'module', edit.module);
    case 'priority':
      return withField(value, 'priority', edit.priority);
    case 'owner':
      return withField(value, value.kind === 'question' ? 'asked' : 'owner', edit.owner);
    case 'tag':
      return withTag(value, edit.tag, edit.belongs);
    case 'tags':
      return withTagsRenamed(value, edit.from, edit.to);
    case 'writtenFor':
      return ofFeature(value, (content) => writtenFor(content, edit));
    case 'wording':
      return worded(value, new Set(edit.from), edit.to, new OwnKinds(valueKinds));
    case 'minutes':
      return ofCase(value, (content) => (content.estimate === edit.minutes ? content : { ...content, estimate: edit.minutes }));
    case 'caseKind':
      return ofCase(value, (content) => (content.kind === edit.caseKind ? content : { ...content, kind: edit.caseKind }));
    case 'execution':
      return ofCase(value, (content) => (content.execution === edit.execution ? content : { ...content, execution: edit.execution }));
    case 'covers':
      return ofCase(value, (content) => covering(content, edit));
    case 'risk':
      return ofRequirement(value, (content) => ({ ...content, risk: edit.risk, rating: null }));
    case 'rating':
      return ofRequirement(value, (content) => ({ ...content, rating: { ...(content.rating ?? middleOf(riskScale)), [edit.part]: edit.step } }));
    case 'type':
      return ofRequirement(value, (content) => ({ ...content, type: edit.type }));
    case 'derivedFrom':
      return ofCondition(value, (content) => derivedFrom(content, edit));
    case 'depth':
      return ofCondition(value, (content) => withDepth(content, edit.depth, edit.belongs));
    case 'own':
      return withOwn(value, edit, fields);
    case 'pins':
      return withPinsOn(value, edit.of, edit.version);
    case 'uses':
      return withPins(value, (used, pinned) => (used === edit.of ? edit.pinned : pinned));
  }
}

function ofFeature(value: KindAndContent, change: (content: FeatureContent) => FeatureContent | null): KindAndContent | null {
  if (value.kind !== 'feature') return null;
  const content = change(value.content);
  return content === value.content ? value : content === null ? null : { kind: 'feature', content };
}

/** Shared steps stay the detail of a phrase that is worded otherwise. */
function worded(value: KindAndContent, from: ReadonlySet<PhraseKey>, to: PhraseKey, own: OwnKinds): KindAndContent | null {
  if (value.kind !== 'shared') return ofFeature(value, (content) => reworded(content, from, to, own));
  const content = withDetailReworded(value.content, from, to, own);
  return content === value.content ? value : { kind: 'shared', content };
}

/** Contents are closed records: a kind whose content has the field may be given it. */
function withField(value: KindAndContent, field: 'module' | 'priority' | 'owner' | 'asked', set: string): KindAndContent | null {
  return field in value.content ? ({ kind: value.kind, content: { ...value.content, [field]: set } } as KindAndContent) : null;
}

/** A tag that differs only in small and capital letters is the same. */
function withTag(value: KindAndContent, tag: string, belongs: boolean): KindAndContent | null {
  if (value.kind === 'feature') return ofFeature(value, (content) => withFeatureTag(content, tag, belongs));
  if (!('tags' in value.content)) return null;
  const same = (other: string): boolean => other.toLowerCase() === tag.toLowerCase();
  const { tags } = value.content;
  if (tags.some(same) === belongs) return value;
  return { kind: value.kind, content: { ...value.content, tags: belongs ? [...tags, tag] : tags.filter((t) => !same(t)) } } as KindAndContent;
}

/** Whichever of them an artefact has becomes the new one, where the first of them stood; it has it once. */
function withTagsRenamed(value: KindAndContent, from: readonly string[], to: string | null): KindAndContent | null {
  if (value.kind === 'feature') return ofFeature(value, (content) => withFeatureTagsRenamed(content, from, to));
  if (!('tags' in value.content)) return null;
  const { tags } = value.content;
  const renamed = tagsRenamed(tags, from, to);
  return renamed === tags ? value : ({ kind: value.kind, content: { ...value.content, tags: renamed } } as KindAndContent);
}

/** A list of tags with some of them called otherwise, or taken away (null); the very same when it has none of them. */
export function tagsRenamed(tags: readonly string[], from: readonly string[], to: string | null): readonly string[] {
  const gone = new Set(from.map((tag) => tag.toLowerCase()));
  if (!tags.some((tag) => gone.has(tag.toLowerCase()) && tag !== to)) return tags;
  const made = tags.flatMap((tag) => (gone.has(tag.toLowerCase()) ? (to ?? []) : tag));
  return made.filter((tag, i) => made.findIndex((other) => other.toLowerCase() === tag.toLowerCase()) === i);
}

function withOwn(value: KindAndContent, { field, value: set }: Extract<ManyEdit, { kind: 'own' }>, fields: readonly OwnField[]): KindAndContent | null {
  if (!ownFieldsOf(fields, value.kind).some((f) => f.id === field)) return null;
  const own = withOwnValue(value.content.own, field, set);
  return own === value.content.own ? value : ({ kind: value.kind, content: { ...value.content, own } } as KindAndContent);
}

function ofCase(value: KindAndContent, edit: (content: CaseContent) => CaseContent): KindAndContent | null {
  if (value.kind !== 'case') return null;
  const content = edit(value.content);
  return content === value.content ? value : { kind: 'case', content };
}

/** A link that is there keeps the version that somebody saw. */
function writtenFor(content: FeatureContent, { requirement, seenVersion, belongs, tags }: Extract<ManyEdit, { kind: 'writtenFor' }>): FeatureContent {
  return belongs ? withWrittenFor(content, { id: requirement, seenVersion }, scenariosTagged(content, tags)) : withoutWrittenFor(content, requirement, 'all');
}

/** A link that is there already stays as it is: which parameters and steps carry it is not lost. */
function covering(content: CaseContent, { condition, seenVersion, belongs }: Extract<ManyEdit, { kind: 'covers' }>): CaseContent {
  if (content.covers.some((cover) => cover.id === condition) === belongs) return content;
  return { ...content, covers: belongs ? [...content.covers, newCover(condition, seenVersion)] : content.covers.filter((cover) => cover.id !== condition) };
}

function ofRequirement(value: KindAndContent, edit: (content: RequirementContent) => RequirementContent): KindAndContent | null {
  return value.kind === 'requirement' ? { kind: 'requirement', content: edit(value.content) } : null;
}

function ofCondition(value: KindAndContent, edit: (content: ConditionContent) => ConditionContent): KindAndContent | null {
  if (value.kind !== 'condition') return null;
  const content = edit(value.content);
  return content === value.content ? value : { kind: 'condition', content };
}

/** A link that is there already stays as it is: what was anchored and seen is not lost. */
function derivedFrom(content: ConditionContent, { requirement, seenVersion, insteadOf }: Extract<ManyEdit, { kind: 'derivedFrom' }>): ConditionContent {
  const there = content.requirements.find((link) => link.id === requirement);
  const others = content.requirements.filter((link) => link.id !== requirement && link.id !== insteadOf);
  if (there !== undefined && others.length === content.requirements.length - 1) return content;
  return { ...content, requirements: [...others, there ?? { id: requirement, seenVersion, anchor: null }] };
}

function withDepth(content: ConditionContent, depth: string, belongs: boolean): ConditionContent {
  if (content.depths.includes(depth) === belongs) return content;
  return { ...content, depths: belongs ? [...content.depths, depth] : content.depths.filter((d) => d !== depth) };
}

function middleOf(scale: RiskScale): NonNullable<RequirementContent['rating']> {
  return { likelihood: Math.floor(scale.likelihood.length / 2), impact: Math.floor(scale.impact.length / 2) };
}
