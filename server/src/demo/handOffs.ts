import { artefactId, type SuiteId } from '@caderno/core/artefacts';
import { DIVIDINGS } from '@caderno/core/handOffs';
import type { NewHandOff } from '@caderno/contract';
import { z } from 'zod';
import type { Actor } from '../artefacts/index.ts';
import { numberRow, selectRows, type UnitOfWork } from '../database/index.ts';
import { makeHandOff } from '../handOffs/index.ts';
import { readSettings } from '../projects/index.ts';

/** Hand-offs of suites by their titles, in configurations by their names; `dueIn`: days after. */
export const handOffsDocument = z.array(
  z.strictObject({ name: z.string(), note: z.string().default(''), suite: z.string(), configurations: z.array(z.string()), people: z.array(z.string()), dividing: z.enum(DIVIDINGS), dueIn: z.int(), by: z.string(), daysAgo: z.number() }),
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

async function suiteCalled(work: UnitOfWork, projectId: string, title: string): Promise<SuiteId> {
  const [found] = await selectRows(work, numberRow, `SELECT number FROM artefact WHERE project_id = $1 AND kind = 'suite' AND title = $2`, [projectId, title]);
  if (found === undefined) throw new Error(`The demo’s hand-offs name its suites: expected one called '${title}'`);
  return artefactId('suite', found.number);
}
