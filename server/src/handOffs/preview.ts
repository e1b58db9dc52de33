import { createHash } from 'node:crypto';
import type { CoveringId } from '@caderno/core/artefacts';
import { executedInstances, handOffLines, type HandOffLine, type HandedOff } from '@caderno/core/handOffs';
import type { AskHandOff, HandOffPreview } from '@caderno/contract';
import type { UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { readHanded, type WhichHandOff } from './handed.ts';
import { findForHandOff } from './members.ts';

/** What is looked at before it is handed off; `projectId`: the project, or the moment of a baseline; `earlier`: the hand-off it is held against. */
export interface PreviewHandOff {
  readonly projectId: string;
  readonly asked: Pick<AskHandOff, 'of' | 'configurations'>;
  readonly now: number;
  readonly earlier: WhichHandOff | null;
}

/** What would be handed off, each with its doubts, and whether it is executed as it was in the earlier hand-off: with all it uses, its values and constants. */
export async function previewHandOff(work: UnitOfWork, { projectId, asked, now, earlier }: PreviewHandOff): Promise<HandOffPreview> {
  const { members, absent, read, configurations } = await findForHandOff(work, projectId, asked, now);
  if (earlier === null) return { members, absent };
  const { lines, handed } = await readHanded(work, earlier);
  const { constants } = (await readSettings(work, projectId)).settings;
  const [before, present] = [digests(lines, handed), digests(handOffLines(members, configurations.map((c) => c.id)), { ...read, constants, configurations })];
  return { members: members.map((m) => ({ ...m, same: before.get(m.of) === present.get(m.of) })), absent };
}

/** What is executed of each case and scenario, whoever does it, and whatever else its version says. */
function digests(lines: readonly HandOffLine[], handed: HandedOff): Map<CoveringId, string> {
  const hashes = new Map<CoveringId, ReturnType<typeof createHash>>();
  for (const { of, key, title, before, values, steps, files } of executedInstances(lines, handed)) {
    const hash = hashes.get(of) ?? createHash('sha256');
    hashes.set(of, hash.update(JSON.stringify([key, title, before, values, steps, files])));
  }
  return new Map([...hashes].map(([of, hash]) => [of, hash.digest('hex')]));
}
