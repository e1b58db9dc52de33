import type { ArtefactId } from '@caderno/core/artefacts';
import type { ReviewNumber } from '@caderno/core/reviews';
import { z } from 'zod';
import type { Actor } from '../artefacts/index.ts';
import type { UnitOfWork } from '../database/index.ts';
import { answerReview, askAgain, askReview, readReview } from '../reviews/index.ts';

const byAndWhen = { by: z.string(), daysAgo: z.number() };
const KINDS = ['requirement', 'condition', 'case', 'shared', 'dataSet'] as const;

/** Reviews with what was said in them, artefacts by their titles; `due`: days from now. */
export const reviewsDocument = z.array(
  z.strictObject({
    title: z.string(),
    note: z.string(),
    due: z.number().optional(),
    ...byAndWhen,
    people: z.array(z.string()),
    of: z.array(z.strictObject(Object.fromEntries(KINDS.map((k) => [k, z.string().optional()])) as Record<(typeof KINDS)[number], z.ZodOptional<z.ZodString>>)),
    acts: z.array(z.union([z.strictObject({ agrees: z.array(z.string()), ...byAndWhen }), z.strictObject({ objects: z.string(), why: z.string(), ...byAndWhen }), z.strictObject({ again: z.string(), ...byAndWhen })])),
  }),
);
type DemoReview = z.infer<typeof reviewsDocument>[number];

interface Around {
  readonly actorOf: (by: string, daysAgo: number) => Actor;
  readonly personOf: (name: string) => string;
  readonly idOf: (kind: (typeof KINDS)[number], title: string) => ArtefactId;
  readonly dayOf: (daysAgo: number) => string;
}

/** A review is asked for, and later answered, through the services that a person's clicks go through. */
export function reviewActs(work: UnitOfWork, demo: DemoReview, { actorOf, personOf, idOf, dayOf }: Around): { readonly daysAgo: number; run(): Promise<void> }[] {
  const ids = new Map<string, ArtefactId>();
  let asked: ReviewNumber | null = null;
  const number = (): ReviewNumber => {
    if (asked === null) throw new Error(`What is said in '${demo.title}' is said after it was asked for: expected a review`);
    return asked;
  };
  const ask = async (): Promise<void> => {
    for (const of of demo.of) for (const kind of KINDS) if (of[kind] !== undefined) ids.set(of[kind], idOf(kind, of[kind]));
    const { review, left } = await askReview(work, actorOf(demo.by, demo.daysAgo), { title: demo.title, note: demo.note, due: demo.due === undefined ? null : dayOf(-demo.due), people: demo.people.map(personOf), ids: [...ids.values()] });
    if (left.length > 0) throw new Error(`All of '${demo.title}' is asked for: expected nothing left out, got ${left.map((l) => `${l.id} ${l.reason}`).join(', ')}`);
    asked = review.number;
  };
  const idsOf = (titles: readonly string[]): ArtefactId[] =>
    titles.map((title) => {
      const id = ids.get(title);
      if (id === undefined) throw new Error(`'${demo.title}' is answered for what it asks for: expected '${title}'`);
      return id;
    });
  const answer = async (actor: Actor, titles: readonly string[], agrees: boolean, note: string): Promise<void> => {
    const { items } = (await readReview(work, actor.projectId, number())).review;
    const of = idsOf(titles).flatMap((id) => items.filter((i) => i.id === id).map(({ version }) => ({ id, version })));
    await answerReview(work, actor, number(), { of, agrees, note });
  };
  return [
    { daysAgo: demo.daysAgo, run: ask },
    ...demo.acts.map((act) => ({
      daysAgo: act.daysAgo,
      run: async () => {
        const actor = actorOf(act.by, act.daysAgo);
        if ('again' in act) await askAgain(work, actor, number(), idsOf([act.again]));
        else if ('agrees' in act) await answer(actor, act.agrees, true, '');
        else await answer(actor, [act.objects], false, act.why);
      },
    })),
  ];
}
