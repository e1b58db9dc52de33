/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import { reviewNumber, standingOf } from '@caderno/core/reviews';
import type { Answers, Review, ReviewItem } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { ReviewPage } from './ReviewPage.tsx';

afterEach(cleanup);

const OTHER = '00000000-0000-4000-8000-000000000002';
const AT = '2026-01-01T10:00:00.000Z';
const item = (n: number, more: Partial<ReviewItem> = {}): ReviewItem => ({ id: `R-${n}`, title: `Requirement ${n}`, module: '', version: 1, since: null, head: 1, standing: 'waiting', authors: [OTHER], answers: [], ...more });
const review = (items: readonly ReviewItem[], more: Partial<Review> = {}): Review => ({
  number: reviewNumber(3), title: 'Readings', note: '', due: null, by: 'Rui M.', at: AT, endedAt: null, endedBy: null,
  asked: [{ person: PERSON.id, name: PERSON.name, may: true, waiting: 0 }, { person: OTHER, name: 'Teresa L.', may: true, waiting: 0 }], items: [...items], ...more,
});

/** A server that takes answers as the real one does; every version of a requirement says which it is. */
function reviewed(begun: Review, more: Parameters<typeof standInProject>[2] = {}) {
  let now = begun;
  const taken: Answers[] = [];
  const server = standInProject([1, 2, 3].map((n) => requirementHead(n)), [], {
    readReview: () => now,
    listRemarks: () => [],
    readVersion: ({ params }) => ({ version: Number(params.version), author: 'Rui M.', at: AT, note: '', kind: 'requirement', content: { ...EMPTY_REQUIREMENT, title: 'R', text: `Text of v${params.version}` } }),
    answerReview: ({ body }) => {
      for (const { id, version } of body.of) {
        const asked = now.items.find((i) => i.id === id);
        if (asked?.version !== version) throw new Refusing({ code: 'review_moved', id, version: asked?.version ?? 0 });
      }
      taken.push(body);
      const items = now.items.map((i) => {
        if (!body.of.some((o) => o.id === i.id)) return i;
        const answers = [...i.answers, { person: PERSON.id, name: PERSON.name, version: i.version, agrees: body.agrees, note: body.note, at: AT }];
        return { ...i, answers, standing: standingOf(i, now.asked, answers, { needed: 1, authors: false }) };
      });
      return (now = { ...now, items });
    },
    ...more,
  });
  onThePage(<ReviewPage />, {}, '/p/reviews/3', '/p/reviews/:review');
  return { server, taken, put: (next: Review) => void (now = next) };
}

const current = async () => (await screen.findByRole('heading', { level: 2 })).textContent;
const standings = () => within(screen.getByRole('list', { name: 'What is reviewed' })).getAllByRole('button').map((b) => /(\d of \d|agreed|objection|waits|taken out)$/.exec(b.textContent ?? '')?.[0]);
const key = (name: string) => fireEvent.keyDown(document.body, { key: name, code: name.length === 1 ? `Key${name.toUpperCase()}` : name });

test('it is gone through by keyboard: what waits first, agreed, objected to with a reason, and on', async () => {
  const { taken } = reviewed(review([item(1, { standing: 'agreed' }), item(2), item(3, { version: 4, since: 2 })]));
  expect(await current()).toBe('Requirement 2');
  expect(standings()).toEqual(['agreed', '0 of 1', '0 of 1']);
  await screen.findByText('Text of v1');
  key('a');
  await waitFor(async () => expect(await current()).toBe('Requirement 3'));
  expect(taken).toEqual([{ of: [{ id: 'R-2', version: 1 }], agrees: true, note: '' }]);
  key('ArrowUp');
  await waitFor(async () => expect(await current()).toBe('Requirement 2'));
  key('ArrowDown');
  await waitFor(async () => expect(await current()).toBe('Requirement 3'));
  key('o');
  const why = await screen.findByRole('textbox', { name: 'Why you object' });
  fireEvent.change(why, { target: { value: 'Which one?' } });
  fireEvent.submit(why.closest('form')!);
  await waitFor(() => expect(standings()).toEqual(['agreed', 'agreed', 'objection']));
  expect(taken[1]).toEqual({ of: [{ id: 'R-3', version: 4 }], agrees: false, note: 'Which one?' });
  expect(within(screen.getByRole('list', { name: 'Answers' })).getByText(/“Which one\?”/)).toBeTruthy();
});

test('one sees what changed since it was agreed, all of it when one wants, and all of it the first time', async () => {
  reviewed(review([item(3, { version: 4, since: 2 }), item(1)]));
  expect(await screen.findByRole('heading', { name: 'What changed since v2' })).toBeTruthy();
  await waitFor(() => expect(document.querySelector('del')?.textContent).toBe('v2'));
  fireEvent.click(screen.getByRole('button', { name: /^Show/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'all that it says' }));
  expect(await screen.findByText('Text of v4')).toBeTruthy();
  expect(document.querySelector('del')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /^R-1/ }));
  expect([await screen.findByRole('heading', { name: 'What it says' }), await screen.findByText('Text of v1')]).toHaveLength(2);
});

test('what was saved meanwhile takes no answer that was meant for another version; it is shown', async () => {
  const { taken, put } = reviewed(review([item(1), item(2)]));
  await screen.findByText('Text of v1');
  put(review([item(1, { version: 2 }), item(2)]));
  fireEvent.click(screen.getByRole('button', { name: 'Agree to v1' }));
  expect(await screen.findByText('Text of v2')).toBeTruthy();
  expect([taken, standings()]).toEqual([[], ['0 of 1', '0 of 1']]);
  fireEvent.click(screen.getByRole('button', { name: 'Agree to v2' }));
  await waitFor(() => expect(taken[0]?.of).toEqual([{ id: 'R-1', version: 2 }]));
});

test('all that waits for oneself is agreed at once, and only that; what one wrote oneself does not wait', async () => {
  const { taken } = reviewed(review([item(1), item(2, { authors: [PERSON.id] }), item(3)]));
  fireEvent.click(await screen.findByRole('button', { name: 'Agree to all 2' }));
  await waitFor(() => expect(taken[0]?.of.map((o) => o.id)).toEqual(['R-1', 'R-3']));
  await waitFor(() => expect(standings()).toEqual(['agreed', '0 of 1', 'agreed']));
});

test('who is not asked, and whoever comes when it has ended, reads; too few who may agree is said', async () => {
  reviewed(review([item(1, { authors: [OTHER] })], { asked: [{ person: OTHER, name: 'Teresa L.', may: true, waiting: 0 }] }));
  expect(await screen.findByText(/^Too few of those asked may agree/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Agree|^Object/ })).toBeNull();
  cleanup();
  reviewed(review([item(1, { standing: 'agreed' })], { endedAt: AT }));
  await screen.findByText('Text of v1');
  expect(screen.queryByRole('button', { name: /^Agree|^Object|^End|^Edit/ })).toBeNull();
});

test('what was mended after an objection is asked for again; what stays as it was is named', async () => {
  const asked: ArtefactId[][] = [];
  reviewed(review([item(1, { standing: 'objected', head: 2 }), item(2, { standing: 'objected' })]), {
    askAgain: ({ body }) => (asked.push([...body.ids]), { review: review([item(1, { version: 2, head: 2 }), item(2, { standing: 'objected' })]), left: [] }),
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Ask again for R-1' }));
  await waitFor(() => expect([asked, standings()]).toEqual([[['R-1']], ['0 of 1', 'objection']]));
});
