/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { reviewNumber } from '@caderno/core/reviews';
import { DEFAULT_SETTINGS, type Member, type NewReview } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { caseHead } from '../../test/heads.ts';
import { requirementHead, sharedHead, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { AskReview } from './AskReview.tsx';
import { InReview } from './InReview.tsx';

afterEach(cleanup);

const OTHER = '00000000-0000-4000-8000-000000000002';
const MEMBERS: Member[] = [{ id: PERSON.id, name: PERSON.name, email: 'a@b.example', role: 'lead', sees: null }, { id: OTHER, name: 'Olga S.', email: 'c@d.example', role: 'reader', sees: null }];
const HEADS = [requirementHead(1, { title: 'Valid reading' }), caseHead(1), caseHead(2, { state: 'agreed' }), sharedHead(1), sharedHead(2, { state: 'withdrawn' })];

function asking(ids: Parameters<typeof AskReview>[0]['ids'], refuse = false) {
  const asked: NewReview[] = [];
  standInProject(HEADS, [], {
    listMembers: () => MEMBERS,
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, agreement: { needed: 2, role: 'analyst', authors: false, byHand: true } } }),
    readHanging: () => ['R-1', 'C-1', 'C-2', 'S-1'],
    askReview: ({ body }) => {
      asked.push(body);
      if (refuse) throw new Refusing({ code: 'reviewers_too_few', id: 'R-1', needed: 2, authors: false });
      return { review: { ...body, number: reviewNumber(7), by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', endedAt: null, endedBy: null, asked: [], items: [] }, left: [] };
    },
  });
  const onClose = jest.fn();
  onThePage(<AskReview ids={ids} onClose={onClose} />);
  return { asked, onClose };
}

const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Ask' });

test('a requirement is asked for alone, or with all that hangs on it but for what is agreed; people are told who may', async () => {
  const { asked, onClose } = asking(['R-1']);
  expect(await screen.findByDisplayValue('R-1 Valid reading')).toBeTruthy();
  expect([button().disabled, await screen.findByText('may object, but not agree: reader'), await screen.findByText(/^2 of them must agree; who wrote something/)]).toHaveLength(3);
  fireEvent.click(screen.getByRole('checkbox', { name: /Olga S\./ }));
  fireEvent.click(await screen.findByRole('checkbox', { name: /with all that hangs on it.*\(3\)/ }));
  expect(screen.getByText(/1 requirement, 1 case, 1 shared steps/)).toBeTruthy();
  fireEvent.change(screen.getByLabelText(/^Until/), { target: { value: '2026-12-24' } });
  fireEvent.click(button());
  await waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(asked).toEqual([{ title: 'R-1 Valid reading', note: '', due: '2026-12-24', people: [OTHER], ids: ['R-1', 'C-1', 'S-1'] }]);
});

test('what cannot be asked for stays out; where nothing is left nobody is asked; what is refused stays in the form', async () => {
  asking(['C-2', 'S-2']);
  expect(await screen.findByText(/^Nothing of this can be asked for now/)).toBeTruthy();
  cleanup();
  const { asked, onClose } = asking(['C-1', 'C-2'], true);
  fireEvent.click(await screen.findByRole('checkbox', { name: /Inês V\./ }));
  fireEvent.change(screen.getByRole('textbox', { name: 'Title' }), { target: { value: ' Counter ' } });
  expect(screen.getByText(/^1 other of them: agreed as they are/)).toBeTruthy();
  fireEvent.click(button());
  await waitFor(() => expect(asked.map((a) => [a.title, a.ids])).toEqual([['Counter', ['C-1']]]));
  await waitFor(() => expect(button().disabled).toBe(false));
  expect([onClose.mock.calls.length, screen.getByRole<HTMLInputElement>('textbox', { name: 'Title' }).value]).toEqual([0, ' Counter ']);
});

test('an artefact leads to the review it is in, and says when that asks oneself', async () => {
  const line = (person: string) => ({ number: reviewNumber(4), title: 'T', note: '', due: null, by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', endedAt: null, endedBy: null, asked: [{ person, name: 'X', may: true, waiting: 1 }], counts: { waiting: 1, agreed: 0, objected: 0, left: 0 }, modules: [], ids: ['C-1' as const] });
  standInProject(HEADS, [], { listReviews: () => [line(OTHER)] });
  onThePage(<><InReview id="C-1" /><InReview id="C-2" /></>);
  expect((await screen.findAllByRole('link')).map((a) => [a.textContent, a.getAttribute('href')])).toEqual([['In review 4', '/p/reviews/4?of=C-1']]);
  cleanup();
  standInProject(HEADS, [], { listReviews: () => [line(PERSON.id)] });
  onThePage(<InReview id="C-1" />);
  expect(await screen.findByText('Review 4 asks you')).toBeTruthy();
});
