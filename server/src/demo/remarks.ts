import { randomUUID } from 'node:crypto';
import type { ArtefactId } from '@caderno/core/artefacts';
import { placeOn, remarkId, saidAt, valueAt } from '@caderno/core/remarks';
import { asJson, isElementList } from '@caderno/core/versions';
import { z } from 'zod';
import type { UnitOfWork } from '../database/index.ts';
import { answer, beginThread, settleThread, type Speaker } from '../remarks/index.ts';

const said = { text: z.string(), by: z.string(), daysAgo: z.number() };

/** Threads of remarks: on an artefact by its title, at one of its steps, on words of that or of its text. */
export const remarksDocument = z.array(
  z.strictObject({
    on: z.union([z.strictObject({ case: z.string() }), z.strictObject({ requirement: z.string() }), z.strictObject({ condition: z.string() })]),
    step: z.number().optional(),
    words: z.string().optional(),
    ...said,
    answers: z.array(z.strictObject({ ...said, offer: z.string().optional() })).default([]),
    settledBy: z.string().optional(),
  }),
);
type DemoThread = z.infer<typeof remarksDocument>[number];

interface Remarked {
  readonly id: ArtefactId;
  readonly version: number;
  readonly content: object;
}

/** Says what was said of an artefact, through the services a person's words go through. */
export async function sayRemarks(work: UnitOfWork, demo: DemoThread, { id, version, content }: Remarked, speakerOf: (by: string, daysAgo: number) => Speaker): Promise<void> {
  const json = asJson(content);
  const path = pathOf(json, demo);
  const text = valueAt(json, path);
  const start = demo.words === undefined || typeof text !== 'string' ? -1 : text.indexOf(demo.words);
  if (demo.words !== undefined && start < 0) throw new Error(`A remark stands on words of ${id}: expected '${demo.words}' in ${path}`);
  const place = placeOn(json, path, demo.words === undefined ? null : { start, end: start + demo.words.length });
  const thread = remarkId(randomUUID());
  await beginThread(work, speakerOf(demo.by, demo.daysAgo), id, { remark: thread, place, said: saidAt(json, place), version, text: demo.text });
  for (const given of demo.answers) await answer(work, speakerOf(given.by, given.daysAgo), thread, { remark: remarkId(randomUUID()), text: given.text, offer: given.offer });
  if (demo.settledBy !== undefined) await settleThread(work, speakerOf(demo.settledBy, demo.daysAgo), thread, true);
}

function pathOf(content: ReturnType<typeof asJson>, { on, step, words }: DemoThread): string {
  if (step === undefined) return words === undefined ? '' : 'requirement' in on ? 'text' : 'objective';
  const steps = valueAt(content, 'steps');
  const id = isElementList(steps) ? steps[step - 1]?.id : undefined;
  if (id === undefined) throw new Error(`A remark stands at a step: expected one as number ${step}`);
  return words === undefined ? `steps/${id}` : `steps/${id}/action`;
}
