import { z } from 'zod';

/** What is known of the project's tracker: when it was last asked, and what has changed there since the last import. */
export const trackerStateSchema = z.object({
  connected: z.boolean(),
  checkedAt: z.string().nullable(),
  /** Null: it answered. */
  failure: z.enum(['unreachable', 'slow', 'refused', 'unreadable', 'too_large']).nullable(),
  newStories: z.int(),
  changedStories: z.int(),
});
/** What is known of the story tracker since it was asked last. */
export type TrackerState = z.infer<typeof trackerStateSchema>;
/** Why it could not be asked. */
export type TrackerFailure = NonNullable<TrackerState['failure']>;

/** A defect of the tracker, to be linked to. */
export const defectSchema = z.object({ id: z.string(), title: z.string(), status: z.string(), link: z.string() });
/** See {@link defectSchema}. */
export type Defect = z.infer<typeof defectSchema>;
