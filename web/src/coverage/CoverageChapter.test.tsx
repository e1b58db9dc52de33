/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
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

test('the matrix is read while the pointer is on its way to it, and not before', async () => {
  const server = standInProject([], [], { readMatrix: () => ({ conditions: [], columns: [], cells: [] }) });
  onThePage(<CoverageChapter />);
  const link = await screen.findByRole('link', { name: 'Matrix' });
  expect(server.calls('readMatrix')).toEqual([]);
  fireEvent.pointerEnter(link);
  await waitFor(() => expect(server.calls('readMatrix')).toHaveLength(1));
});

test('an empty project says so without a number that is none', async () => {
  standInProject([], []);
  onThePage(<CoverageChapter />);
  await screen.findByRole('heading', { name: 'Design coverage' });
  expect(screen.queryByText(/NaN|Infinity|undefined/)).toBeNull();
});

test('what is agreed leads to the project of now at its agreed versions; on a moment it is not offered', async () => {
  standInProject([], [], { readProject: () => ({ key: 'p', name: 'P', role: 'analyst' as const, sees: null, modules: [], figures: { revision: 41, requirements: 0, conditions: 0, cases: 0, shared: 0, openQuestions: 0, suspectLinks: 0 } }) });
  onThePage(<CoverageChapter />, {}, '/p/coverage?list=unanalysed');
  fireEvent.click(await screen.findByRole('button', { name: 'only what is agreed' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p@41-agreed/coverage?list=unanalysed'));
  cleanup();
  onThePage(<CoverageChapter />, { project: 'p@41', isPast: true });
  await screen.findByRole('heading', { name: 'Design coverage' });
  expect(screen.queryByRole('button', { name: 'only what is agreed' })).toBeNull();
  // Reports and curves are of now; what stood then is a document.
  expect(screen.queryByRole('link', { name: 'Report' })).toBeNull();
  expect(screen.getByRole('link', { name: 'Specification' }).getAttribute('href')).toBe('/p@41/specification');
});
