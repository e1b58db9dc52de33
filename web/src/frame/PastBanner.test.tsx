/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { momentOfText } from '@caderno/contract';
import { baselineNumber } from '@caderno/core/baselines';
import { cleanup, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { PastBanner, pastWords, type Past } from './PastBanner.tsx';

afterEach(cleanup);

const taken = (part: string) => ({ number: baselineNumber(2), name: 'Before the pilot', note: '', by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', part, revision: 9, seal: 'a'.repeat(64), counts: {}, agreed: 0, coverage: null });
const past = (text: string): Past => ({ project: 'p', moment: momentOfText(text), at: '2026-01-01T10:00:00.000Z', sees: text.includes('part') ? ['Bills', 'Meters', 'Payments'] : null });
const said = async (text: string, words: RegExp) => {
  standInProject([], [], { listBaselines: () => [taken('R-4')] });
  onThePage(<PastBanner past={past(text)} />, {}, `/p@${text}/cases/C-7?row=3`);
  const note = screen.getByRole('note', { name: 'As it was' });
  await waitFor(() => expect(note.textContent).toMatch(words));
  return screen.getAllByRole('link').map((l) => [l.textContent, l.getAttribute('href')]);
};
const now = ['This page now', '/p/cases/C-7?row=3'];

test('it says which moment one reads, of what part, and leads to the same page of now', async () => {
  expect(await said('B-2', /^The project as it was in B-2 Before the pilot, .*2026.*, of R-4 only\. Nothing can be changed here\./)).toEqual([['What changed since', '/p/baselines/2'], now]);
});

test('of a part it says which modules it holds, and asks nothing of the whole project', async () => {
  expect(await said('120-part-0123456789abcdef', /^Only Bills, Meters and Payments and what they use, as of .*2026.*\. Nothing can be changed here\./)).toEqual([['Look for what is newer', '/p/cases/C-7?row=3']]);
  expect(pastWords(past('0-part-0123456789abcdef'))).toMatch(/^in part, .*2026/);
});

test('a moment of the journal, and what was agreed at one, say so', async () => {
  expect(await said('120', /^The project as it was on .*2026.*\. Nothing can be changed here\./)).toEqual([['Journal', '/p/journal'], now]);
  cleanup();
  expect(await said('120-agreed', /^Only what is agreed, as of .*2026.*: cases and what they use, each at the version agreed last\..* Nothing can be changed here\./)).toEqual([now]);
  expect([pastWords(past('B-2')), pastWords(past('120')), pastWords(past('120-agreed'))]).toEqual(['in B-2', expect.stringMatching(/^as it was, .*2026/), expect.stringMatching(/^as agreed, .*2026/)]);
});
