import { z } from 'zod';

/** What is wrong with something that was sent or is stored, and where in it. */
export const placedIssueSchema = z.object({ path: z.string(), message: z.string() });
/** What is wrong, and where in what was sent. */
export type PlacedIssue = z.infer<typeof placedIssueSchema>;

const MOST_ISSUES = 20;

/** The first issues of a check that failed; `part`: what was checked. */
export function placedIssues(error: z.ZodError, part = ''): PlacedIssue[] {
  return error.issues.slice(0, MOST_ISSUES).map(({ path, message }) => ({ path: [part, ...path].filter((p) => p !== '').join('.'), message }));
}
