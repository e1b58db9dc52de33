import { execute, type UnitOfWork } from '../database/index.ts';
import { deliverIn } from '../inbox/index.ts';

const DAY_MS = 24 * 60 * 60_000;
/** What is older everybody has read. */
const READ_DAYS = 7;

/** Brings what happened in the demo to those who want to know, who read what is older than a week when it came. */
export async function fillInboxes(work: UnitOfWork, projectId: string, now: Date): Promise<void> {
  await deliverIn(work, projectId);
  await execute(work, 'UPDATE inbox_entry SET read_at = at WHERE project_id = $1 AND at < $2', [projectId, new Date(now.getTime() - READ_DAYS * DAY_MS)]);
}
