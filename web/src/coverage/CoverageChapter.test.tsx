/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { CoverageChapter } from './CoverageChapter.tsx';

afterEach(cleanup);

const condition = conditionHead(1, { title: 'Digits', polarity: 'positive', requirements: ['R-1'] });
const row = { kind: 'condition' as const, id: condition.id, weight: 1, standings: ['shown', 'gap', 'gap', 'leftOut'] as const, techniques: ['plain', 'plain', 'plain', 'plain'] as const };

test('the numbers are those of the heads and rows, each leads to what is behind it, and what cannot be read is named', async () => {
  standInProject([requirementHead(1), requirementHead(2), condition, caseHead(1), caseHead(2, { broken: true })], [row, { kind: 'case', id: 'C-1', shows: true, counts: null }]);
  onThePage(<CoverageChapter />);
  await screen.findByRole('heading', { name: 'Design coverage' });
  const figures = screen.getAllByRole('link').filter((a) => /shown by rows|not analysed|only linked|coverage items/.test(a.textContent ?? ''));
  expect(figures.map((a) => [a.textContent?.replaceAll('\u00a0', ' '), a.getAttribute('href')])).toEqual([
    ['33 %shown by rows and expected results', '/p/here?standing=shown'],
    ['1 of 2requirements not analysed yet', '/p/here?list=unanalysed'],
    ['33 %including items only linked', '/p/here?standing=shown,linked'],
    [expect.stringContaining('3coverage items in'), '/p/here?standing=shown,linked,waiting,suspect,gap'],
  ]);
  const legend = within(screen.getByRole('list', { name: 'Standings' }));
  expect(legend.getAllByRole('link').map((a) => a.textContent?.replaceAll(/\s+/g, ' ').trim())).toEqual(expect.arrayContaining([expect.stringMatching(/shown 1$/), expect.stringMatching(/2$/)]));
  await waitFor(() => expect(screen.getByText(/1 artefact cannot be read/).textContent).toContain('C-2'));
});

test('an empty project says so without a number that is none', async () => {
  standInProject([], []);
  onThePage(<CoverageChapter />);
  await screen.findByRole('heading', { name: 'Design coverage' });
  expect(screen.queryByText(/NaN|Infinity|undefined/)).toBeNull();
});
