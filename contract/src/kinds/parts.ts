import { ARTEFACT_STATES } from '@caderno/core/artefacts';
import { z } from 'zod';
import { innerIdSchema } from '../ids.ts';
import { LIMITS } from '../limits.ts';
import { isEachOnce } from '../once.ts';
import { textUpTo } from '../text.ts';

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
const defectLink = z.strictObject({ id: name, title, link: textUpTo(LIMITS.address) });
export const defects = uniqueById(z.array(defectLink).max(LIMITS.links));

export function uniqueById<E extends { readonly id: string }, S extends z.ZodType<E[]>>(list: S): S {
  return list.refine((elements) => isEachOnce(elements.map((e) => e.id)), 'ids must not repeat');
}

/** What lists show of an artefact of any kind. */
export const head = {
  title: z.string(),
  state: z.enum(ARTEFACT_STATES),
  version: z.int(),
  /** The version with which the present meaning began: links that saw an earlier one are suspect. */
  meaningSince: z.int(),
  module: z.string(),
  author: z.string(),
  at: moment,
  /** What is stored of it cannot be read. */
  broken: z.boolean(),
};
