import type { Attachment } from '../attachments/index.ts';
import type { ConditionId, RequirementId } from '../artefacts/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';
import type { Observation } from './observation.ts';

export const QUESTION_STATUSES = ['open', 'answered', 'withdrawn'] as const;
export type QuestionStatus = (typeof QUESTION_STATUSES)[number];

/** Something a question is about, and whether it holds up what is to be shown there. */
export type QuestionSubject = RequirementSubject | ConditionSubject;

export interface RequirementSubject {
  readonly kind: 'requirement';
  readonly id: RequirementId;
  /** The words in question; empty when it bears on the requirement as a whole. */
  readonly words: string;
  /** Whether every coverage item of its conditions waits. */
  readonly holds: boolean;
}

export interface ConditionSubject {
  readonly kind: 'condition';
  readonly id: ConditionId;
  /** Keys of the coverage items that wait; empty: all of them. */
  readonly items: readonly string[];
  /** Whether they wait for the answer. */
  readonly holds: boolean;
}

/** What a version of a question holds. Every raising, answering and reopening is a version. */
export interface QuestionContent {
  /** The question in one line. */
  readonly title: string;
  /** What is unclear, in Markdown. */
  readonly text: string;
  /** Display name of the person asked; empty: nobody yet. */
  readonly asked: string;
  readonly about: readonly QuestionSubject[];
  readonly status: QuestionStatus;
  /** Markdown; kept when a question is reopened. */
  readonly answer: string;
  readonly answeredBy: string;
  /** ISO date and time; empty when not answered. */
  readonly answeredAt: string;
  /** The requirements its answer was written into, with the version that holds it. */
  readonly settledIn: readonly { readonly id: RequirementId; readonly version: number }[];
  readonly observations: readonly Observation[];
  /** Files that belong to it as a whole. */
  readonly attachments: readonly Attachment[];
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_QUESTION: QuestionContent = {
  title: '',
  text: '',
  asked: '',
  about: [],
  status: 'open',
  answer: '',
  answeredBy: '',
  answeredAt: '',
  settledIn: [],
  observations: [],
  attachments: [],
  own: NO_OWN,
};

/** The question with an answer to it. */
export function answered(content: QuestionContent, answer: string, by: string, at: string): QuestionContent {
  return { ...content, status: 'answered', answer, answeredBy: by, answeredAt: at };
}

/** The question open again; its answer so far stays to be read. */
export function reopened(content: QuestionContent): QuestionContent {
  return { ...content, status: 'open' };
}

/** The question taken back: it holds up nothing any more. */
export function withdrawnQuestion(content: QuestionContent): QuestionContent {
  return { ...content, status: 'withdrawn' };
}

/** The part whose change would make trace links to the question suspect. */
export function questionMeaning(content: QuestionContent): unknown {
  return [content.title, content.text, content.answer];
}
