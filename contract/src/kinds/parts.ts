import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { ATTACHMENT_TYPES, type Attachment } from '@caderno/core/attachments';
import { NO_OWN, type OwnValue, type OwnValues } from '@caderno/core/fields';
import { z } from 'zod';
import { attachmentIdSchema, innerIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { isEachOnce } from '../once.ts';
import { textUpTo, trimmedTextUpTo } from '../text.ts';
import type { Migration } from './kind.ts';

/** What contents of several kinds are made of. */
export const title = textUpTo(LIMITS.title);
export const name = textUpTo(LIMITS.name);
export const line = textUpTo(LIMITS.line);
export const text = textUpTo(LIMITS.text);
export const cell = textUpTo(LIMITS.cell);
export const moment = z.iso.datetime();
export const count = z.int().min(0);

const observation = z.strictObject({ id: innerIdSchema, documented: line, done: line, seen: line, by: name, at: moment });
export const observations = uniqueById(z.array(observation).max(LIMITS.observations));
/** Files that belong to an artefact or a step. */
/** A file as the server keeps it, and as an artefact or a step names it. */
export const attachmentSchema: z.ZodType<Attachment> = z.strictObject({ id: attachmentIdSchema, name: title, type: z.enum(ATTACHMENT_TYPES).nullable(), size: z.int().min(0).max(LIMITS.attachment).nullable() });
export const attachments: z.ZodType<Attachment[]> = uniqueById(z.array(attachmentSchema).max(LIMITS.attachments));
/** Contents written before artefacts had files of their own have none. */
export const withFiles: Migration = (stored) => ({ ...stored, attachments: [] });
/** What can stand in a field of a project's own. */
export const ownValueSchema: z.ZodType<OwnValue> = z.union([text, z.array(line).max(LIMITS.choices)]);
export const own: z.ZodType<OwnValues> = z.record(innerIdSchema, ownValueSchema);
/** Contents written before projects had fields of their own hold nothing in them. */
export const withOwn: Migration = (stored) => ({ ...stored, own: NO_OWN });

/** The name of a priority; which there are is the project's own. */
export const priority = trimmedTextUpTo(60);

const defectLink = z.strictObject({ id: name, title, link: textUpTo(LIMITS.address) });
export const defects = uniqueById(z.array(defectLink).max(LIMITS.links));

export function uniqueById<E extends { readonly id: string }, S extends z.ZodType<E[]>>(list: S): S {
  return list.refine((elements) => isEachOnce(elements.map((e) => e.id)), 'ids must not repeat');
}

const ownOfHead: z.ZodType<OwnValues> = z.record(z.string(), z.union([z.string(), z.array(z.string())]));

/** What lists show of an artefact of any kind. */
export const head = {
  title: z.string(),
  state: z.enum(ARTEFACT_STATES),
  version: z.int(),
  /** The version with which the present meaning began: links that saw an earlier one are suspect. */
  meaningSince: z.int(),
  /** The version that was agreed last; null: none. */
  agreed: z.int().nullable(),
  module: z.string(),
  /** Values of the project's own fields; a long text only as far as a list shows it. */
  own: ownOfHead,
  author: z.string(),
  at: moment,
  /** What is stored of it cannot be read. */
  broken: z.boolean(),
};
