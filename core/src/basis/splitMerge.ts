import type { ConditionId, RequirementId } from '../artefacts/index.ts';
import type { QuestionContent } from './question.ts';
import type { Relation, RequirementContent } from './requirement.ts';

/** A part of a requirement that is split; the first part stays the requirement it was, with its history. */
export interface SplitPart {
  readonly title: string;
  readonly text: string;
}

export const FEWEST_PARTS = 2;
export const MOST_PARTS = 20;

/** What the relation is called by which a new part points back, and an absorbed requirement points on. */
export const SPLIT_FROM = 'split from';
export const MERGED_INTO = 'merged into';

/** The contents of the parts: all is inherited but title and text; only the first keeps where it was imported from. */
export function splitContents(content: RequirementContent, id: RequirementId, parts: readonly SplitPart[]): RequirementContent[] {
  return parts.map(({ title, text }, place) => {
    const inherited = { ...content, title, text, dismissals: content.dismissals.filter((d) => text.replaceAll(/\s+/g, ' ').includes(d.sentence)) };
    return place === 0 ? inherited : { ...inherited, origin: null, relations: withRelation(content.relations, SPLIT_FROM, id) };
  });
}

/** The part that holds the words, the first where several do; the first part when none does. */
export function partWithWords(parts: readonly SplitPart[], words: string): number {
  return Math.max(0, words === '' ? 0 : parts.findIndex((part) => part.text.includes(words)));
}

/** A text to begin with when requirements are merged: theirs one after the other, each title as a heading above its text. */
export function mergedText(contents: readonly Pick<RequirementContent, 'title' | 'text'>[]): string {
  return contents.map(({ title, text }, i) => (i === 0 ? text.trim() : `**${title}**\n\n${text.trim()}`)).join('\n\n');
}

/** The content of the requirement that stays, with what the absorbed ones bring along. */
export function mergedContent(kept: RequirementContent, absorbed: readonly RequirementContent[], { title, text }: SplitPart): RequirementContent {
  const attributes = [...kept.attributes];
  const relations = [...kept.relations];
  for (const other of absorbed) {
    for (const attribute of other.attributes) if (!attributes.some((a) => a.id === attribute.id)) attributes.push(attribute);
    for (const relation of other.relations) if (!relations.some((r) => r.kind === relation.kind && r.to === relation.to)) relations.push(uniqueRelation(relations, relation));
  }
  const dismissals = [kept, ...absorbed].flatMap((c) => c.dismissals).filter((d, i, all) => all.findIndex((e) => e.id === d.id) === i);
  const attachments = [kept, ...absorbed].flatMap((c) => c.attachments).filter((a, i, all) => all.findIndex((b) => b.id === a.id) === i);
  return { ...kept, title, text, attributes, relations, dismissals, attachments };
}

/** What an absorbed requirement still says, once it is withdrawn: where it went. */
export function absorbedContent(content: RequirementContent, into: RequirementId): RequirementContent {
  return { ...content, relations: withRelation(content.relations, MERGED_INTO, into) };
}

function withRelation(relations: readonly Relation[], kind: string, to: RequirementId): Relation[] {
  const has = relations.some((r) => r.kind === kind && r.to === to);
  return has ? [...relations] : [...relations, uniqueRelation(relations, { id: `${kind} ${to}`.replaceAll(' ', '-'), kind, to })];
}

function uniqueRelation(relations: readonly Relation[], relation: Relation): Relation {
  let { id } = relation;
  for (let n = 2; relations.some((r) => r.id === id); n += 1) id = `${relation.id}-${n}`;
  return { ...relation, id };
}

/** A question whose subject moves from one requirement to another; a subject that is there already is kept once. */
export function movedQuestion(question: QuestionContent, from: RequirementId, to: RequirementId): QuestionContent {
  const about = question.about.map((subject) => (subject.kind === 'requirement' && subject.id === from ? { ...subject, id: to } : subject));
  return { ...question, about: about.filter((subject, i) => about.findIndex((s) => s.id === subject.id) === i) };
}

/** Who goes where when a requirement is split: by the place of the part. What is not named stays with the first. */
export interface SplitAssignment {
  readonly conditions: Readonly<Record<ConditionId, number>>;
  readonly questions: Readonly<Record<string, number>>;
  /** Requirements below it in the outline. */
  readonly children: Readonly<Record<RequirementId, number>>;
}
