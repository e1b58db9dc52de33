/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { artefactId } from '@caderno/core/artefacts';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { questionHead, standInProject } from '../../test/standInProject.ts';
import { QuestionsChapter } from './QuestionsChapter.tsx';

afterEach(cleanup);

const heads = [questionHead(1, { title: 'Small' }), questionHead(2, { title: 'Holds up most', asked: 'Teresa L.', about: ['R-1'] }), questionHead(3, { title: 'Settled', status: 'answered' }), questionHead(4, { title: 'Torn', broken: true })];
const rows = [{ kind: 'question' as const, id: artefactId('question', 2), heldUp: 7 }, { kind: 'question' as const, id: artefactId('question', 1), heldUp: 2 }];
const lines = (): string[] => within(screen.getByRole('list', { name: 'Questions' })).queryAllByRole('link').map((a) => a.textContent ?? '');

test('open ones stand before answered ones, what holds up most first, and each line says whom it is asked of and what it is about', async () => {
  standInProject(heads, rows);
  onThePage(<QuestionsChapter />);
  await waitFor(() => expect(lines()).toHaveLength(4));
  await waitFor(() => expect(lines()[0]).toBe('Q-2Holds up mostasked of Teresa L. · about R-17held up'));
  expect(lines()[1]).toContain('2held up');
  expect(lines()[2]).toContain('cannot be read');
  expect(within(screen.getByRole('list', { name: 'Questions' })).getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual(['Open3 questions · 9 items held up', 'Answered1 question']);
  fireEvent.change(screen.getByRole('combobox', { name: 'Filter the questions by a query' }), { target: { value: 'status:answered' } });
  await waitFor(() => expect(lines().map((l) => l.slice(0, 10))).toEqual(['Q-3Settled']));
});

test('a new question is made and its page opened; who may only read is offered none', async () => {
  const server = standInProject(heads, rows, { createArtefact: ({ body }) => ({ kind: 'question', summary: questionHead(9), content: body.content, draft: null }) as never });
  const { unmount } = onThePage(<QuestionsChapter />);
  fireEvent.click(await screen.findByRole('button', { name: 'New' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/questions/Q-9'));
  expect(server.calls('createArtefact')).toHaveLength(1);
  unmount();
  onThePage(<QuestionsChapter />, { canEdit: false });
  await waitFor(() => expect(lines()).toHaveLength(4));
  expect(screen.queryByRole('button', { name: 'New' })).toBeNull();
});
