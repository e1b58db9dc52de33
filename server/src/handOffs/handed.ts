import type { HandOffHead, HandOffLine, HandOffNumber, HandedOff } from '@caderno/core/handOffs';
import { z } from 'zod';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';
import { readContents, type MeantContents } from './contents.ts';
import { readStored } from './read.ts';

/** Which hand-off of which project; `moment`: the project that its baseline is read as. */
export interface WhichHandOff {
  readonly projectId: string;
  readonly moment: string;
  readonly number: HandOffNumber;
}

/** A hand-off with all that its instances are told from. */
export interface ReadHandedOff extends Omit<HandOffHead, 'person'> {
  readonly lines: readonly HandOffLine[];
  readonly handed: HandedOff & Pick<MeantContents, 'library'>;
}

const projectRow = z.object({ key: z.string(), name: z.string() });

/** @throws {DomainError} when the project has none of this number. */
export async function readHanded(work: UnitOfWork, { projectId, moment, number }: WhichHandOff): Promise<ReadHandedOff> {
  const { lines, configurations, of: _, baseline, ...head } = await readStored(work, projectId, number);
  const [project] = await selectRows(work, projectRow, 'SELECT key, name FROM project WHERE id = $1', [projectId]);
  if (project === undefined) throw new Error('A hand-off belongs to a project: expected one, got none');
  const { contents, library } = await readContents(work, moment, lines);
  const { constants } = (await readSettings(work, moment)).settings;
  return { ...head, project, baseline: `B-${baseline}`, lines, handed: { contents, library, constants, configurations } };
}
