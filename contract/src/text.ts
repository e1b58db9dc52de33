import { z } from 'zod';

/** PostgreSQL's JSONB holds every Unicode text but those with a NUL, and half a surrogate pair is no text. */
export function textUpTo(most: number): z.ZodType<string> {
  return z.string().max(most).refine(isText, 'must be text without NUL characters');
}

export function isText(text: string): boolean {
  return !text.includes('\0') && text.isWellFormed();
}
