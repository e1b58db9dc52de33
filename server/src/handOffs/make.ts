import type { ArtefactId } from '@caderno/core/artefacts';
import { baselineNumber, type BaselineNumber } from '@caderno/core/baselines';
import { MOST_HANDED_OFF, divide, handOffLines, handOffNumber, leavesOut, lineKey, type HandOffLine } from '@caderno/core/handOffs';
import { ownerOf } from '@caderno/core/suites';
import type { HandOffListed, NewHandOff } from '@caderno/contract';
import { z } from 'zod';
import { lockProject, type Actor } from '../artefacts/index.ts';
import { baselineHead, freeze } from '../baselines/index.ts';
import { selectRows, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { revisionOf } from '../log/index.ts';
import { tellPages } from '../projects/index.ts';
import { findForHandOff, type FoundForHandOff } from './members.ts';
import { readHead } from './read.ts';

/** A hand-off that is ordered; `from`: the project whose members it has, which of a baseline is its moment, and how that is asked there. */
export interface HandOffOrder {
  readonly wanted: NewHandOff;
  readonly from: { readonly projectId: string; readonly of: NewHandOff['of'] };
}

const numberedRow = z.object({ number: z.number().transform(handOffNumber) });

/** Freezes what is handed off in a baseline (or takes the one that is named), gives it out to people, and keeps who has what. */
export async function makeHandOff(work: UnitOfWork, actor: Actor, { wanted, from }: HandOffOrder): Promise<HandOffListed> {
  await lockProject(work, actor.projectId);
  const [earlier] = actor.commandId === null ? [] : await selectRows(work, numberedRow, 'SELECT number FROM hand_off WHERE project_id = $1 AND command_id = $2', [actor.projectId, actor.commandId]);
  if (earlier !== undefined) return readHead(work, actor.projectId, earlier.number);
  const found = await findForHandOff(work, from.projectId, { of: from.of, configurations: wanted.configurations }, actor.at.getTime());
  const lines = linesOf(found, wanted);
  const baseline = 'baseline' in wanted.of ? wanted.of.baseline : await freezeMembers(work, actor, { wanted, suite: wanted.of.suite }, found, lines);
  const { id: baselineRow } = await baselineHead(work, actor.projectId, baseline);
  const of = 'suite' in wanted.of ? wanted.of.suite : `B-${wanted.of.baseline}`;
  const [made] = await selectRows(
    work,
    numberedRow,
    `INSERT INTO hand_off (project_id, number, name, note, of, baseline_id, due, made_by, at, configurations, lines, command_id)
     SELECT $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11 FROM hand_off WHERE project_id = $1 RETURNING number`,
    [actor.projectId, wanted.name, wanted.note, of, baselineRow, wanted.due, actor.personId, actor.at, JSON.stringify(found.configurations), JSON.stringify(lines), actor.commandId],
  );
  if (made === undefined) throw new Error('A hand-off is made with its number: expected a row, got none');
  await tellPages(work, actor.projectId, { event: 'frozen', data: {} });
  return readHead(work, actor.projectId, made.number);
}

/** What is executed, in its order: each member in the configurations in which it runs. @throws {DomainError} when it is nothing, or more than a hand-off may come to. */
function linesOf({ members, configurations }: FoundForHandOff, { leftOut, people, dividing, chosen }: NewHandOff): HandOffLine[] {
  const out = new Set(leftOut);
  const handed = members.filter((m) => !out.has(m.of) && !m.doubts.some(leavesOut));
  const lines = handOffLines(handed, configurations.map((c) => c.id));
  if (lines.length === 0) throw new DomainError({ code: 'hand_off_of_nothing' });
  const instances = lines.reduce((sum, line) => sum + line.instances, 0);
  if (instances > MOST_HANDED_OFF) throw new DomainError({ code: 'hand_off_too_large', instances, limit: MOST_HANDED_OFF });
  const persons = divide(lines, people, dividing, new Map(chosen.map((c) => [lineKey(c), c.person])));
  return lines.map((line, i) => ({ ...line, person: persons[i] ?? '' }));
}

/** With all that the versions handed off use: earlier versions may use what the present ones do not. */
async function freezeMembers(work: UnitOfWork, actor: Actor, { wanted: { name, note }, suite }: { readonly wanted: NewHandOff; readonly suite: Extract<NewHandOff['of'], { suite: unknown }>['suite'] }, { read }: FoundForHandOff, lines: readonly HandOffLine[]): Promise<BaselineNumber> {
  const used = new Set<ArtefactId>([...lines.map((line) => ownerOf(line.of)), ...[...read.library.values()].map((u) => u.id)]);
  const taken = await freeze(work, { ...actor, commandId: null }, { name, note, of: { suite } }, await revisionOf(work, actor.projectId), null, [...used]);
  return baselineNumber(taken.number);
}
