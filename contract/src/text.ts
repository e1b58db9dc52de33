import { z } from 'zod';

/** PostgreSQL's JSONB holds every Unicode text but those with a NUL, and half a surrogate pair is no text. */
export function textUpTo(most: number): z.ZodType<string> {
  return z.string().max(most).refine(isText, 'must be text without NUL characters');
}

/** The same for what a person types once: no spaces around it, and not empty. */
export function trimmedTextUpTo(most: number): z.ZodType<string> {
  return z.string().trim().min(1).max(most).refine(isText, 'must be text without NUL characters');
}

/** Whether every system can hold it: no NUL, no half of a surrogate pair. */
export function isText(text: string): boolean {
  return !text.includes('\0') && text.isWellFormed();
}
