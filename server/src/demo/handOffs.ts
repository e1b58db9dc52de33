import { artefactId, type SuiteId } from '@caderno/core/artefacts';
import { DIVIDINGS, handOffNumber, notedWords } from '@caderno/core/handOffs';
import type { NewHandOff } from '@caderno/contract';
import { z } from 'zod';
import type { Actor } from '../artefacts/index.ts';
import { numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { makeHandOff, placedNotes } from '../handOffs/index.ts';
import { readSettings } from '../projects/index.ts';
import { beginThread, type Speaker } from '../remarks/index.ts';

const returned = z.strictObject({ by: z.string(), daysAgo: z.number(), notes: z.array(z.strictObject({ instance: z.string(), step: z.int().nullable().default(null), remark: z.string().default(''), action: z.string().nullable().default(null), minutes: z.string().default('') })) });

/** Hand-offs of suites by their titles, in configurations by their names; `dueIn`: days after; `returned`: what came back. */
export const handOffsDocument = z.array(
  z.strictObject({ name: z.string(), note: z.string().default(''), suite: z.string(), configurations: z.array(z.string()), people: z.array(z.string()), dividing: z.enum(DIVIDINGS), dueIn: z.int(), by: z.string(), daysAgo: z.number(), returned: z.array(returned).default([]) }),
);
type DemoHandOff = z.infer<typeof handOffsDocument>[number];

const DAY = 86_400_000;

/** Hands a suite of the demo off as it stands on that day. */
export async function handOffNow(work: UnitOfWork, actor: Actor, { name, note, suite, configurations, people, dividing, dueIn }: DemoHandOff): Promise<void> {
  const of = { suite: await suiteCalled(work, actor.projectId, suite) };
  const there = (await readSettings(work, actor.projectId)).settings.configurations;
  const due = new Date(actor.at.getTime() + dueIn * DAY).toISOString().slice(0, 10);
  const wanted: NewHandOff = { of, name, note, due, people, dividing, configurations: there.filter((c) => configurations.includes(c.name)).map((c) => c.id), leftOut: [], chosen: [] };
  await makeHandOff(work, actor, { wanted, from: { projectId: actor.projectId, of } });
}

/** Puts what somebody noted in their part of a hand-off at its places, as whoever brings it back does. */
export async function bringBackNow(work: UnitOfWork, speaker: Speaker, handOff: string, { by, notes }: DemoHandOff['returned'][number]): Promise<void> {
  const { projectId } = speaker;
  const [found] = await selectRows(work, numberRow, 'SELECT number FROM hand_off WHERE project_id = $1 AND name = $2', [projectId, handOff]);
  const number = handOffNumber(found?.number ?? 0);
  const { proposals, unplaced } = await placedNotes(work, { projectId, moment: projectId, number }, by, notes.map((note) => ({ ...note, handOff: '', expected: null })));
  if (unplaced.length > 0) throw new Error(`What came back in the demo has its place: expected one for ${JSON.stringify(unplaced)}`);
  for (const proposal of proposals) {
    const { of, remark, place, said, version, text, offer } = proposal;
    await beginThread(work, speaker, of, { remark, place, said, version, text: `${text}\n\n${notedWords(number, by, proposal)}`, ...(offer === null ? {} : { offer }) });
  }
}

async function suiteCalled(work: UnitOfWork, projectId: string, title: string): Promise<SuiteId> {
  const [found] = await selectRows(work, numberRow, `SELECT number FROM artefact WHERE project_id = $1 AND kind = 'suite' AND title = $2`, [projectId, title]);
  if (found === undefined) throw new Error(`The demo’s hand-offs name its suites: expected one called '${title}'`);
  return artefactId('suite', found.number);
}
