/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { ConditionsChapter } from './ConditionsChapter.tsx';

afterEach(cleanup);

const heads = [
  requirementHead(1, { title: 'Valid reading', risk: 'high', module: 'Meters' }),
  requirementHead(2, { title: 'Four bands', module: 'Tariffs' }),
  conditionHead(1, { title: 'Reading value', model: 'valueRanges', requirements: ['R-1'], depths: ['smoke'] }),
  conditionHead(2, { title: 'Who may', requirements: ['R-1', 'R-2'] }),
  conditionHead(3, { title: 'Bands', model: 'decisionTable', requirements: ['R-2'], state: 'agreed' }),
  conditionHead(4, { title: 'Gone', requirements: ['R-2'], state: 'withdrawn' }),
];
const rows = [
  { kind: 'condition' as const, id: 'K-1' as const, weight: 1, standings: ['shown', 'gap'] as const, techniques: ['partitions', 'boundaries'] as const },
  { kind: 'condition' as const, id: 'K-3' as const, weight: 1, standings: ['shown'] as const, techniques: ['decisionTable'] as const },
];
const list = () => within(screen.getByRole('list', { name: 'Conditions' }));
const lines = (): string[] => list().getAllByRole('link').map((link) => link.textContent ?? '');

function open(path = '/p/conditions?left=all') {
  standInProject(heads, rows, { readListViews: () => ({}), saveListView: () => ({}), listSavedQueries: () => [] });
  onThePage(<ConditionsChapter />, {}, path, '/p/conditions/:requirement?/:condition?');
}

test('all conditions stand under their requirements, with technique, risk, depths and what is open of each', async () => {
  open();
  await waitFor(() => expect(lines()).toHaveLength(4));
  expect(list().getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual(['R-1 Valid reading2 conditions · 1 gap', 'R-2 Four bands2 conditions']);
  expect(lines()[0]).toContain('K-1Reading valuevalue ranges · high risk · smoke');
  // Of two requirements the higher risk counts; it stands under both.
  expect([lines()[1], lines()[2]].every((line) => line?.includes('K-2Who mayplain · high risk'))).toBe(true);
  expect(lines()[3]).toContain('K-3Bandsdecision table · agreed');
});

test('are found by what they show and where they hang, and lead to themselves with the list beside them', async () => {
  open();
  await waitFor(() => expect(lines()).toHaveLength(4));
  const filter = (text: string): void => void fireEvent.change(screen.getByRole('combobox', { name: 'Filter the conditions by a query' }), { target: { value: text } });
  filter('standing:gap or technique:"decision table"');
  await waitFor(() => expect(lines().map((line) => line.slice(0, 3))).toEqual(['K-1', 'K-3']));
  filter('module:tariffs coverage<50%');
  await screen.findByText('No condition matches the query.');
  filter('coverage<=50%');
  await waitFor(() => expect(lines().map((line) => line.slice(0, 3))).toEqual(['K-1']));
  expect(list().getByRole('link').getAttribute('href')).toBe('/p/condition/K-1?left=all&query=coverage%3C%3D50%25');
});

test('the way back to a requirement and its conditions stays', async () => {
  open();
  fireEvent.click(await screen.findByRole('link', { name: 'Conditions' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/conditions'));
  expect(screen.queryByRole('list', { name: 'Conditions' })).toBeNull();
  fireEvent.click(screen.getByRole('link', { name: 'All in a list' }));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/conditions?left=all'));
});
