/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { reviewNumber } from '@caderno/core/reviews';
import type { ReviewLine } from '@caderno/contract';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { ReviewsPage } from './ReviewsPage.tsx';
import { dayOf, endWords, isOverdue, progressWords } from './reviewWords.ts';

afterEach(cleanup);

const OTHER = '00000000-0000-4000-8000-000000000002';
const line = (n: number, more: Partial<ReviewLine> = {}): ReviewLine => ({ number: reviewNumber(n), title: `Review of ${n}`, note: '', due: null, by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', endedAt: null, endedBy: null, asked: [{ person: OTHER, name: 'Teresa L.', may: true, waiting: 2 }], counts: { waiting: 2, agreed: 1, objected: 0, left: 0 }, modules: ['Bands'], ids: ['C-1'], ...more });
const shown = (name: string) => within(screen.getByRole('list', { name })).getAllByRole('link').map((a) => a.getAttribute('href'));

test('those that wait, whom for and how far; overdue ones say so; by person and by module', async () => {
  standInProject([], [], {
    listReviews: () => [
      line(3, { due: '2026-01-05', asked: [{ person: PERSON.id, name: PERSON.name, may: true, waiting: 2 }], modules: ['Access'] }),
      line(2),
      line(1, { endedAt: '2026-01-02T10:00:00.000Z', counts: { waiting: 0, agreed: 3, objected: 0, left: 0 } }),
    ],
  });
  onThePage(<ReviewsPage />);
  expect(await screen.findByText('2 for you')).toBeTruthy();
  expect(screen.getByText(/^overdue since/)).toBeTruthy();
  expect([shown('Reviews that are waiting'), shown('Reviews that have ended')]).toEqual([['/p/reviews/3', '/p/reviews/2'], ['/p/reviews/1']]);
  fireEvent.click(screen.getByRole('button', { name: /^Waits for/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'Teresa L.' }));
  expect([shown('Reviews that are waiting'), screen.queryByText('Ended')]).toEqual([['/p/reviews/2'], null]);
  fireEvent.click(screen.getByRole('button', { name: /^Module/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'Access' }));
  expect(screen.getByText('None of the reviews that are waiting fits.')).toBeTruthy();
});

test('how far a review is, in words', () => {
  expect(progressWords({ waiting: 1, agreed: 2, objected: 1, left: 3 })).toBe('2 of 4 agreed, 1 objection, 3 taken out');
  expect([endWords(line(1, { endedBy: 'Rui M.' })), endWords(line(1)), endWords(line(1, { counts: { waiting: 0, agreed: 0, objected: 0, left: 1 } }))]).toEqual(['ended by Rui M.', 'all agreed', 'ended: nothing was left in it']);
  // The last day is still in time.
  expect(['2026-01-04', '2026-01-05', '2026-01-06'].map((today) => isOverdue({ due: '2026-01-05', endedAt: null }, today))).toEqual([false, false, true]);
  expect([isOverdue({ due: '2026-01-05', endedAt: '2026-01-09T10:00:00.000Z' }, '2026-02-01'), dayOf(new Date(2026, 0, 5, 23, 59))]).toEqual([false, '2026-01-05']);
});
