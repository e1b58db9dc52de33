/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { DEFAULT_SETTINGS, type SavedQuery } from '@caderno/contract';
import { ownFieldId, type OwnField } from '@caderno/core/fields';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { ChartConfiguration } from 'chart.js';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { questionHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { Refusing, type StandInServer } from '../../test/standInServer.ts';

const drawn: ChartConfiguration<'bar'>[] = [];
class Chart {
  static register(): void {}
  constructor(_: HTMLCanvasElement, config: ChartConfiguration<'bar'>) {
    drawn.push(config);
  }
  destroy(): void {}
}
jest.unstable_mockModule('chart.js', () => ({ BarController: {}, BarElement: {}, CategoryScale: {}, Chart, LineController: {}, LineElement: {}, LinearScale: {}, PointElement: {}, Tooltip: {} }));
const { CountsPage } = await import('./CountsPage.tsx');

const COST: OwnField = { id: ownFieldId('cost'), name: 'Cost', of: ['case'], type: 'number', choices: [], required: false, begins: null, help: '', removed: false };
let server: StandInServer;
let kept: SavedQuery[];
beforeEach(() => {
  drawn.length = 0;
  kept = [];
  const heads = [
    caseHead(1, { title: 'Reads', module: 'Readings', owner: 'Rui M.', estimate: 2.5, tags: ['smoke', 'night'] }), caseHead(2, { title: 'Pays', module: 'Bills', estimate: 1 }),
    caseHead(3, { title: 'Owes', module: 'Bills', owner: 'Rui M.', estimate: 0.25, tags: ['night'] }), questionHead(1, { asked: 'Teresa L.' }), requirementHead(1, { title: 'Rule', module: 'Bills' }), requirementHead(2, { title: 'Chapter', module: 'Bills', type: 'heading' }),
  ];
  server = standInProject(heads, [], {
    readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, modules: ['Readings', 'Bills'], fields: [COST] } }),
    listSavedQueries: () => kept,
    saveQuery: ({ params: { query: id }, body }) => (kept = [...kept, { id, ...body }]),
    removeQuery: ({ params: { query: id } }) => (kept = kept.filter((q) => q.id !== id)),
  });
});
afterEach(cleanup);

const open = (search: string, frame = {}) => onThePage(<CountsPage />, frame, `/p/counts${search}`, '/p/:page');
const rows = (): string[] => screen.getAllByRole('row').map((row) => [...row.children].map((cell) => cell.textContent).join(' | '));
const here = (): string[] => within(screen.getByRole('list', { name: 'Counted here' })).queryAllByRole('link').map((link) => link.textContent ?? '');
const address = (): string => decodeURIComponent(screen.getByTitle('Address').textContent ?? '');

test('a table by two columns opens to those it counts, and from there to their list where a query finds just them', async () => {
  open('?kind=case&down=module&across=owner');
  expect(await screen.findByRole('heading', { name: 'Cases by module and owner' })).toBeTruthy();
  await waitFor(() => expect(rows()).toEqual(['Module | Rui M. | No owner | All', 'Readings | 1 | · | 1', 'Bills | 1 | 1 | 2', 'All | 2 | 1 | 3']));
  expect(here()).toEqual(['C-2Pays', 'C-3Owes', 'C-1Reads']);
  fireEvent.click(screen.getByRole('button', { name: 'Bills, No owner: 1' }));
  expect(here()).toEqual(['C-2Pays']);
  expect(address()).toContain('line==Bills&column=-');
  expect((screen.getByRole('link', { name: 'Open as a list' }) as HTMLAnchorElement).href).toContain(`/p/list/case?${new URLSearchParams({ query: 'module:Bills -has:owner' }).toString()}`);
  // What was opened is where it was when one comes back; what is no more opens to nobody.
  cleanup();
  open('?kind=case&down=module&across=owner&line=%3DGone');
  expect(await screen.findByText('0 cases')).toBeTruthy();
  expect(screen.queryByRole('link', { name: 'Open as a list' })).toBeNull();
});

test('headings are no requirements: they are not counted, nor in the list that is opened', async () => {
  open('?kind=requirement&down=module&across=none&query=id:R-1+or+id:R-2');
  await waitFor(() => expect(rows()).toEqual(['Module | All', 'Bills | 1', 'All | 1']));
  expect(here()).toEqual(['R-1Rule']);
  expect((screen.getByRole('link', { name: 'Open as a list' }) as HTMLAnchorElement).href).toContain(new URLSearchParams({ query: '(id:R-1 or id:R-2) -type:heading' }).toString());
});

test('arrows lead from figure to figure, and one stop of Tab into the table', async () => {
  open('?kind=case&down=module&across=owner');
  const first = await screen.findByRole('button', { name: 'Readings, Rui M.: 1' });
  expect(screen.getAllByRole('button').filter((b) => b.dataset.at !== undefined && b.tabIndex === 0).map((b) => b.getAttribute('aria-label'))).toEqual(['Readings, Rui M.: 1', 'All: 3']);
  act(() => first.focus());
  for (const key of ['ArrowDown', 'ArrowRight', 'ArrowDown', 'ArrowDown']) fireEvent.keyDown(document.activeElement!, { key });
  expect(document.activeElement?.getAttribute('aria-label')).toBe('No owner: 1');
});

test('sums are exact, several values are told of, and whoever has none of what is summed has no figure', async () => {
  open('?kind=case&down=tags&across=none&of=minutes');
  await waitFor(() => expect(rows()).toEqual(['Tags | All', 'night | 2.75', 'smoke | 2.5', 'No tags | 1', 'All | 3.75']));
  expect(screen.getByText(/stands in several places/)).toBeTruthy();
  cleanup();
  open('?kind=case&down=state&across=none&of=own:cost');
  await waitFor(() => expect(rows()).toEqual(['State | All', 'Draft | –', 'All | –']));
});

test('bars are divided by what stands across, with a colour for each; a click opens who is counted there', async () => {
  open('?kind=case&down=module&across=owner&as=bars');
  // The library comes late, as it does for people.
  await waitFor(() => expect(drawn.at(-1)?.data).toMatchObject({ labels: ['Readings', 'Bills'], datasets: [{ label: 'Rui M.', data: [1, 1] }, { label: 'No owner', data: [0, 1] }] }), { timeout: 20_000 });
  act(() => (drawn.at(-1)!.options!.onClick as unknown as (event: object, elements: object[]) => void)({}, [{ index: 1, datasetIndex: 1 }]));
  await waitFor(() => expect(here()).toEqual(['C-2Pays']));
});

test('more parts than colours: the last stands for all others, and opens the whole line', async () => {
  const owners = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
  standInProject(owners.map((owner, i) => caseHead(i + 1, { owner, module: 'Bills' })), [], { listSavedQueries: () => [] });
  open('?kind=case&down=module&across=owner&as=bars');
  await waitFor(() => expect(drawn.at(-1)?.data.datasets.map((d) => [d.label, d.data])).toEqual([...owners.slice(0, 5).map((owner) => [owner, [1]]), ['3 others', [3]]]), { timeout: 20_000 });
  const click = (part: number): void => act(() => (drawn.at(-1)!.options!.onClick as unknown as (event: object, elements: object[]) => void)({}, [{ index: 0, datasetIndex: part }]));
  click(4);
  await waitFor(() => expect(here()).toHaveLength(1));
  click(5);
  await waitFor(() => expect(here()).toHaveLength(8));
});

test('counts are kept for oneself or for everybody, stand on one page as they are now, and are removed by whoever may', async () => {
  open('?kind=case&down=module&across=none&of=minutes');
  fireEvent.click(await screen.findByRole('button', { name: 'Keep' }));
  fireEvent.change(await screen.findByLabelText('Name'), { target: { value: 'Effort' } });
  fireEvent.click(screen.getByLabelText(/For everybody/));
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() => expect(kept).toMatchObject([{ kind: 'case', name: 'Effort', everybody: true, counts: { down: 'module', across: null, measure: 'minutes', as: 'table' } }]));
  kept = [...kept, { ...kept[0]!, id: '00000000-0000-4000-8000-00000000000a', name: 'Mine', everybody: false, counts: { ...kept[0]!.counts!, down: 'own:gone' as never } }, { ...kept[0]!, id: '00000000-0000-4000-8000-00000000000b', name: 'A list', counts: null }];
  cleanup();
  open('', { canEdit: false });
  const project = await screen.findByRole('region', { name: 'The project’s' });
  await waitFor(() => expect(rows()).toEqual(['Module | All', 'Readings | 2.5', 'Bills | 1.25', 'All | 3.75']));
  expect(within(project).queryByRole('button')).toBeNull();
  const mine = screen.getByRole('region', { name: 'My own' });
  expect(mine.textContent).toContain('A field by which this was counted is gone.');
  fireEvent.click(within(mine).getByRole('button', { name: 'Remove the counts Mine' }));
  await waitFor(() => expect(screen.queryByRole('region', { name: 'My own' })).toBeNull());
  expect(screen.queryByText('A list')).toBeNull();
  expect(server.calls('removeQuery')).toHaveLength(1);
});

test('of nothing there is nothing to count, and words say why', async () => {
  open('?kind=case&query=tag:none');
  expect(await screen.findByText('No case matches the query.')).toBeTruthy();
  cleanup();
  open('?kind=suite');
  expect(await screen.findByText('There is no suite yet.')).toBeTruthy();
  cleanup();
  open('?kind=nonsense');
  expect(await screen.findByText('No counts are kept yet')).toBeTruthy();
});

test('what is kept and cannot be read is said, with a way to try again', async () => {
  standInProject([], [], {
    listSavedQueries: () => {
      throw new Refusing({ code: 'role_too_low', needed: 'reader', have: 'reader' });
    },
  });
  open('');
  expect(await screen.findByRole('button', { name: /again/i }, { timeout: 20_000 })).toBeTruthy();
  expect(screen.queryByText('Reading …')).toBeNull();
});
