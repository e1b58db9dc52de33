/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { baselineNumber } from '@caderno/core/baselines';
import { cleanup, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { PastBanner } from './PastBanner.tsx';

afterEach(cleanup);

const taken = (part: string) => ({ number: baselineNumber(2), name: 'Before the pilot', note: '', by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', part, revision: 9, seal: 'a'.repeat(64), counts: {}, agreed: 0, coverage: null });

test('it says which moment one reads, of what part, and leads to the same page of now', async () => {
  standInProject([], [], { listBaselines: () => [taken('R-4')] });
  onThePage(<PastBanner past={{ project: 'p', baseline: baselineNumber(2) }} />, {}, '/p@B-2/cases/C-7?row=3');
  const note = screen.getByRole('note', { name: 'As it was' });
  await waitFor(() => expect(note.textContent).toMatch(/^The project as it was in B-2 Before the pilot, .*2026.*, of R-4 only\. Nothing can be changed here\./));
  const links = screen.getAllByRole('link').map((l) => [l.textContent, l.getAttribute('href')]);
  expect(links).toEqual([['What changed since', '/p/baselines/2'], ['This page now', '/p/cases/C-7?row=3']]);
});
