/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, describe, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { DEFAULT_SETTINGS, packHeads, type ChangeMany, type ListView, type SavedQuery } from '@caderno/contract';
import userEvent from '@testing-library/user-event';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { ownField } from '../../test/ownField.ts';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { ListPage, useListing } from '../listing/index.ts';
import { ListChapter } from './index.ts';

afterEach(cleanup);

const heads = [
  caseHead(1, { title: 'Read the dial', module: 'Meters', priority: 'high', owner: 'Inês V.', tags: ['smoke'], estimate: 2, rows: 4, steps: 3 }),
  caseHead(2, { title: 'Pay in coins', module: 'Counter', state: 'agreed', owner: 'Rui M.', estimate: 5 }),
  caseHead(3, { title: 'Explore the counter', module: 'Counter', caseKind: 'charter', priority: 'low', tags: ['smoke', 'night'] }),
  caseHead(4, { title: 'Turn of the dial', module: 'Meters', at: '2025-01-01T00:00:00.000Z' }),
  caseHead(5, { title: 'Gone', module: 'Meters', state: 'withdrawn' }),
  requirementHead(1, { title: 'Readings', module: 'Meters' }),
];

/** A server that remembers views and queries as ours does. */
function server(answers: Parameters<typeof standInProject>[2] = {}) {
  let views: Partial<Record<string, ListView>> = {};
  let queries: SavedQuery[] = [{ id: '00000000-0000-4000-8000-00000000000a', kind: 'case', name: 'Night run', query: 'tag:night', everybody: true, counts: null }];
  return standInProject(heads, [{ kind: 'case', id: 'C-1', shows: true, counts: null }], {
    readListViews: () => views,
    saveListView: ({ params: { kind }, body }) => (views = { ...views, [kind]: body }),
    listSavedQueries: () => queries,
    saveQuery: ({ params: { query: id }, body }) => (queries = [...queries, { id, ...body }]),
    removeQuery: ({ params: { query: id } }) => (queries = queries.filter((q) => q.id !== id)),
    changeMany: ({ body }) => ({ change: null, changed: 'ids' in body.of ? body.of.ids.length : 0, made: [], left: [] }),
    ...answers,
  });
}

function Narrow() {
  const listing = useListing('case');
  return <ListPage kind="case" listing={listing} current={null} heading={<h1>Cases</h1>} look={{ notes: (listed) => [listed.head.module] }} onNew={() => undefined} />;
}
const narrow = (path = '/p/cases') => onThePage(<Narrow />, {}, path, '/p/cases/:case?');
const table = (path = '/p/list/case') => onThePage(<ListChapter />, {}, path, '/p/list/:kind');
const addressNow = (): string => screen.getByTitle('Address').textContent ?? '';
const idsIn = (role: 'list' | 'table'): string[] => {
  const list = role === 'list' ? screen.getByRole('list', { name: 'Cases' }) : screen.getByRole('table');
  return within(list).queryAllByRole('link').flatMap((link) => /C-\d+$/.exec(new URL((link as HTMLAnchorElement).href).pathname) ?? []);
};
const query = (): HTMLInputElement => screen.getByRole('combobox', { name: /^Filter the/ });
const type = (text: string): void => {
  act(() => query().focus());
  fireEvent.change(query(), { target: { value: text } });
};
const offered = (): string[] => screen.queryAllByRole('option').map((option) => option.firstChild?.textContent ?? '');

describe('the query line', () => {
  test('offers fields and their values while one types; what is chosen goes where the caret is, and what is not chosen is left alone', async () => {
    server();
    narrow();
    await waitFor(() => expect(idsIn('list')).toHaveLength(4));
    type('st');
    expect(offered().slice(0, 2)).toEqual(['state', 'steps']);
    fireEvent.keyDown(query(), { key: 'ArrowDown' });
    fireEvent.keyDown(query(), { key: 'Enter' });
    expect(query().value).toBe('state:');
    await waitFor(() => expect(offered()).toContain('agreed'));
    type('state:ag');
    fireEvent.click(screen.getByRole('option', { name: /^agreed/ }));
    expect(query().value).toBe('state:agreed ');
    await waitFor(() => expect(idsIn('list')).toEqual(['C-2']));
    // What the project has, those of most first; with quotes where they are needed.
    type('tag:');
    expect(offered()).toEqual(['smoke', 'night']);
    type('owner:in');
    fireEvent.click(screen.getByRole('option', { name: /^Inês V\./ }));
    expect(query().value).toBe('owner:"Inês V." ');
    type('own');
    fireEvent.keyDown(query(), { key: 'Tab' });
    fireEvent.blur(query());
    expect(query().value).toBe('own');
  });

  test('keeps every letter, though the address comes behind; another address is another query', async () => {
    server();
    const { again } = narrow('/p/cases?query=tag:smoke');
    await waitFor(() => expect(idsIn('list')).toEqual(['C-3', 'C-1']));
    for (let length = 1; length <= 'minutes>3'.length; length += 1) type('minutes>3'.slice(0, length));
    expect(query().value).toBe('minutes>3');
    await waitFor(() => expect(addressNow()).toBe('/p/cases?query=minutes%3E3'));
    expect(query().value).toBe('minutes>3');
    await waitFor(() => expect(idsIn('list')).toEqual(['C-2']));
    again(<Narrow />);
    expect(query().value).toBe('minutes>3');
  });

  test('marks what it cannot understand where it stands, and says what would be', async () => {
    server();
    narrow();
    type('tag:smoke colour:red (');
    await waitFor(() => expect([...document.querySelectorAll('mark')].map((mark) => mark.textContent)).toEqual(['colour:red', '(']));
    expect(screen.getByText(/There is no field colour: the fields are state, module, owner/).textContent).toContain('A bracket is not closed.');
    await waitFor(() => expect(idsIn('list')).toEqual(['C-3', 'C-1']));
  });
});

describe('groups and order', () => {
  const heading = (): string[] => screen.getAllByRole('heading', { level: 2 }).map((h) => h.textContent ?? '');
  const choose = async (label: RegExp, name: string): Promise<void> => {
    fireEvent.click(screen.getByRole('button', { name: label }));
    fireEvent.click(await screen.findByRole('option', { name }));
  };
  test('stand in the address and are remembered; what has two tags stands under both', async () => {
    const at = server();
    narrow();
    await waitFor(() => expect(heading()).toEqual(['Counter2 cases', 'Meters2 cases']));
    await choose(/^Group by/, 'Tags');
    await waitFor(() => expect(heading()).toEqual(['night1 case', 'smoke2 cases', 'No tags2 cases']));
    expect(idsIn('list')).toEqual(['C-3', 'C-3', 'C-1', 'C-2', 'C-4']);
    await choose(/^Group by/, 'nothing');
    await choose(/^Sort by/, 'Minutes');
    fireEvent.click(screen.getByRole('button', { name: 'Sort downwards' }));
    // Twice 2 minutes for each of four rows are more than 5 once; nothing estimated stands last.
    await waitFor(() => expect(idsIn('list')).toEqual(['C-1', 'C-2', 'C-3', 'C-4']));
    expect(addressNow()).toBe('/p/cases?group=none&sort=-minutes');
    expect(at.calls('saveListView').at(-1)?.body).toMatchObject({ group: null, sort: { column: 'minutes', descending: true } });
  });
  test('an address that names what cases do not have is as if it named nothing', async () => {
    server();
    narrow('/p/cases?group=technique&sort=wings');
    await waitFor(() => expect(heading()).toEqual(['Counter2 cases', 'Meters2 cases']));
  });
});

describe('keys', () => {
  const press = (key: string, more: object = {}): void => void fireEvent.keyDown(document.activeElement ?? document.body, { key, ...more });
  test('arrows lead on and the page follows; Shift selects on the way, Space one, Ctrl A all that match, Escape none', async () => {
    server();
    narrow('/p/cases?group=module');
    await waitFor(() => expect(idsIn('list')).toEqual(['C-2', 'C-3', 'C-1', 'C-4']));
    const first = within(screen.getByRole('list', { name: 'Cases' })).getByRole('link', { name: /^C-2/ });
    // One line is in the order of Tab.
    expect(within(screen.getByRole('list', { name: 'Cases' })).getAllByRole('link').filter((link) => link.tabIndex === 0)).toEqual([first]);
    act(() => first.focus());
    press('ArrowDown');
    await waitFor(() => expect(addressNow()).toBe('/p/cases/C-3?group=module'));
    await waitFor(() => expect(document.activeElement?.textContent).toContain('Explore the counter'));
    // Over the head of the next group.
    press('ArrowDown', { shiftKey: true });
    await waitFor(() => expect(screen.getByText('2 selected')).toBeTruthy());
    // On over all that is between, and back again.
    press('End', { shiftKey: true });
    await waitFor(() => expect(screen.getByText('3 selected')).toBeTruthy());
    await waitFor(() => expect(document.activeElement?.textContent).toContain('Turn of the dial'));
    press('ArrowUp', { shiftKey: true });
    await waitFor(() => expect(screen.getByText('2 selected')).toBeTruthy());
    await waitFor(() => expect(document.activeElement?.textContent).toContain('Read the dial'));
    press('End');
    await waitFor(() => expect(addressNow()).toBe('/p/cases/C-4?group=module'));
    await waitFor(() => expect(document.activeElement?.textContent).toContain('Turn of the dial'));
    press(' ');
    expect(screen.getByText('3 selected')).toBeTruthy();
    press('a', { ctrlKey: true });
    expect(screen.getByText('4 selected')).toBeTruthy();
    press('Escape');
    expect(screen.queryByRole('toolbar')).toBeNull();
    press('Home');
    await waitFor(() => expect(addressNow()).toBe('/p/cases/C-2?group=module'));
  });
});

describe('many changed', () => {
  test('how many will be another is said before, and one command names them', async () => {
    const at = server();
    narrow();
    await waitFor(() => expect(idsIn('list')).toHaveLength(4));
    fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-2' }));
    fireEvent.click(screen.getByRole('button', { name: 'Select all 4' }));
    fireEvent.click(screen.getByRole('button', { name: 'Change' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Change 4 cases' }));
    const what = async (name: string): Promise<void> => {
      fireEvent.click(dialog.getByRole('button', { name: /^What/ }));
      fireEvent.click(await screen.findByRole('option', { name }));
    };
    expect((dialog.getByRole('button', { name: 'Change cases' }) as HTMLButtonElement).disabled).toBe(true);
    await what('Add a tag');
    fireEvent.change(dialog.getByRole('combobox', { name: 'Add a tag' }), { target: { value: 'Smoke' } });
    expect(dialog.getByRole('status').textContent).toContain('2 of 4 will change; the others have it already.');
    await what('Minutes');
    fireEvent.change(dialog.getByRole('combobox', { name: 'Minutes' }), { target: { value: 'many' } });
    expect(dialog.getByRole('status').textContent).toContain('Minutes cannot be “many”.');
    fireEvent.change(dialog.getByRole('combobox', { name: 'Minutes' }), { target: { value: '2,5' } });
    fireEvent.click(dialog.getByRole('button', { name: 'Change 4 cases' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(at.calls('changeMany').map((call) => call.body)).toEqual([{ of: { ids: ['C-2', 'C-3', 'C-1', 'C-4'] }, done: { kind: 'edit', edit: { kind: 'minutes', minutes: 2.5 } }, detail: '4 cases set to 2.5 min' }]);
    expect(screen.queryByRole('toolbar')).toBeNull();
  });

  test('what they use is pinned as it is now, a text of one’s own is emptied, and what takes long is told on the way', async () => {
    let done: (() => void) | null = null;
    const shared = { kind: 'shared' as const, id: 'S-7' as const, title: 'Sign in', state: 'draft' as const, version: 4, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, tags: [], steps: 1, parameters: [], phrases: [] };
    const at = server({
      readHeads: () => ({ revision: 1, heads: packHeads([...heads.map((head) => (head.id === 'C-2' ? { ...head, own: { bearer: 'Kiosk' } } : head)), shared]), next: null, suspectLinks: 0 }),
      readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, fields: [ownField('Bearer', 'text')] } }),
      changeMany: ({ body }) => new Promise((resolve) => { done = () => resolve({ change: null, changed: 'ids' in body.of ? body.of.ids.length : 0, made: [], left: [] }); }),
    });
    narrow();
    await waitFor(() => expect(idsIn('list')).toHaveLength(4));
    const set = async (field: string, fill: (dialog: ReturnType<typeof within>) => Promise<void> | void): Promise<void> => {
      fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-2' }));
      fireEvent.click(screen.getByRole('button', { name: 'Change' }));
      const dialog = within(await screen.findByRole('dialog', { name: 'Change 1 case' }));
      fireEvent.click(dialog.getByRole('button', { name: /^What/ }));
      fireEvent.click(await screen.findByRole('option', { name: field }));
      await fill(dialog);
      fireEvent.click(dialog.getByRole('button', { name: 'Change 1 case' }));
      await screen.findByText('Changing 1 case …');
      done?.();
      await waitFor(() => expect([screen.queryByRole('toolbar'), screen.queryByRole('dialog')]).toEqual([null, null]));
    };
    await set('Pin what they use', async (dialog) => {
      await userEvent.type(dialog.getByRole('combobox', { name: 'What they use' }), 'sign');
      await userEvent.click(await screen.findByRole('option', { name: /S-7/ }));
      await dialog.findByText('S-7 Sign in, v4');
    });
    await set('Bearer', (dialog) => void fireEvent.click(dialog.getByLabelText('leave it empty')));
    expect(at.calls('changeMany').map((call) => (call.body as ChangeMany).done)).toEqual([{ kind: 'edit', edit: { kind: 'uses', of: 'S-7', pinned: 4 } }, { kind: 'edit', edit: { kind: 'own', field: 'bearer', value: null } }]);
  });

  test('those that are withdrawn are brought back, the others withdrawn; who may only read does neither', async () => {
    const at = server();
    const { unmount } = narrow('/p/cases?query=state:any');
    await waitFor(() => expect(idsIn('list')).toHaveLength(5));
    for (const id of ['C-4', 'C-5']) fireEvent.click(screen.getByRole('checkbox', { name: `Select ${id}` }));
    fireEvent.click(screen.getByRole('button', { name: 'Bring back' }));
    await waitFor(() => expect(at.calls('changeMany').map((call) => call.body)).toMatchObject([{ of: { ids: ['C-5'] }, done: { kind: 'state', state: 'draft' } }]));
    unmount();
    server();
    onThePage(<Narrow />, { canEdit: false }, '/p/cases', '/p/cases/:case?');
    await waitFor(() => expect(idsIn('list')).toHaveLength(4));
    fireEvent.click(screen.getByRole('checkbox', { name: 'Select C-4' }));
    expect(within(screen.getByRole('toolbar')).getAllByRole('button').map((button) => button.textContent)).toEqual(['Select all 4', 'Carry to another project', 'Clear selection']);
  });
});

describe('saved queries', () => {
  const open = (): void => void fireEvent.click(screen.getByRole('button', { name: /^Queries/ }));
  test('stand with how many match now, are chosen, kept under a name, and removed', async () => {
    const at = server();
    narrow();
    await waitFor(() => expect(idsIn('list')).toHaveLength(4));
    await screen.findByRole('button', { name: 'Queries 1' });
    open();
    expect((await screen.findByRole('menuitem', { name: /^Night run/ })).textContent).toBe('Night runtag:night · the project’s1');
    fireEvent.click(screen.getByRole('menuitem', { name: /^Night run/ }));
    await waitFor(() => expect(idsIn('list')).toEqual(['C-3']));
    open();
    expect((await screen.findByRole('menuitem', { name: 'This query is saved' })).getAttribute('aria-disabled')).toBe('true');
    fireEvent.keyDown(screen.getByRole('menu'), { key: 'Escape' });
    type('priority:high ');
    open();
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Save this query' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Save this query' }));
    fireEvent.change(dialog.getByRole('textbox', { name: 'Name' }), { target: { value: 'Urgent' } });
    fireEvent.click(dialog.getByRole('checkbox', { name: 'For everybody in the project' }));
    fireEvent.click(dialog.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(at.calls('saveQuery').map((call) => call.body)).toEqual([{ kind: 'case', name: 'Urgent', query: 'priority:high', everybody: true, counts: null }]));
    await screen.findByRole('button', { name: 'Queries 2' });
    open();
    fireEvent.click(await screen.findByRole('menuitem', { name: 'Remove the query Night run' }));
    await screen.findByRole('button', { name: 'Queries 1' });
  });
});

describe('the table', () => {
  const columns = (): string[] => screen.getAllByRole('columnheader').map((head) => head.textContent ?? '').filter(Boolean);
  test('shows the columns one has chosen, in their order and widths; a head sorts', async () => {
    const at = server();
    table('/p/list/case?group=none');
    await waitFor(() => expect(idsIn('table')).toHaveLength(4));
    expect(columns().slice(0, 4)).toEqual(['Id', 'Title', 'State', 'Module']);
    expect(within(screen.getAllByRole('row')[3]!).getAllByRole('cell').map((cell) => cell.textContent).slice(1, 9)).toEqual(['C-1', 'Read the dial ', 'Draft', 'Meters', 'High', 'Inês V.', '3', '4']);
    fireEvent.click(within(screen.getByRole('columnheader', { name: /^Title/ })).getByRole('button'));
    await waitFor(() => expect(idsIn('table')).toEqual(['C-3', 'C-2', 'C-1', 'C-4']));
    expect(screen.getByRole('columnheader', { name: /^Title/ }).getAttribute('aria-sort')).toBe('ascending');
    fireEvent.click(screen.getByRole('button', { name: 'Columns' }));
    fireEvent.click(await screen.findByRole('checkbox', { name: 'State' }));
    await waitFor(() => expect(columns()[2]).toBe('Module'));
    fireEvent.click(screen.getByRole('button', { name: 'Move Module to the left' }));
    await waitFor(() => expect(columns().slice(0, 3)).toEqual(['Id', 'Module', 'Title']));
    fireEvent.keyDown(screen.getByRole('separator', { name: 'Width of Title' }), { key: 'ArrowRight' });
    await waitFor(() => expect(screen.getByRole('separator', { name: 'Width of Title' }).getAttribute('aria-valuenow')).toBe('296'));
    expect(at.calls('saveListView').map((call) => (call.body as ListView).columns).at(-1)?.slice(0, 3)).toEqual([{ column: 'id', width: null }, { column: 'module', width: null }, { column: 'title', width: 296 }]);
    fireEvent.click(screen.getByRole('button', { name: 'As they were at first' }));
    await waitFor(() => expect(columns().slice(0, 4)).toEqual(['Id', 'Title', 'State', 'Module']));
  });

  test('changes values where they stand, each by one command; Escape keeps what was', async () => {
    const at = server();
    table('/p/list/case?group=none');
    await waitFor(() => expect(idsIn('table')).toHaveLength(4));
    fireEvent.click(screen.getByRole('button', { name: 'Priority of C-1: High' }));
    fireEvent.click(await screen.findByRole('option', { name: 'Low' }));
    await waitFor(() => expect(at.calls('changeMany')).toHaveLength(1));
    const edit = (name: string, text: string, key: string): void => {
      fireEvent.click(screen.getByRole('button', { name }));
      const field = screen.getByRole('combobox', { name: name.slice(0, name.indexOf(':')) });
      fireEvent.change(field, { target: { value: text } });
      fireEvent.keyDown(field, { key });
    };
    edit('Module of C-2: Counter', 'Payments', 'Escape');
    // Of one instance, though all of them are shown.
    fireEvent.click(screen.getByRole('button', { name: 'Minutes of C-1: 8' }));
    expect((screen.getByRole('combobox', { name: 'Minutes of C-1' }) as HTMLInputElement).value).toBe('2');
    fireEvent.keyDown(screen.getByRole('combobox', { name: 'Minutes of C-1' }), { key: 'Enter' });
    edit('Owner of C-4: none', 'Olga S.', 'Enter');
    await waitFor(() => expect(at.calls('changeMany').map((call) => call.body)).toEqual([
      { of: { ids: ['C-1'] }, done: { kind: 'edit', edit: { kind: 'priority', priority: 'low' } }, detail: '1 case set to priority low' },
      { of: { ids: ['C-4'] }, done: { kind: 'edit', edit: { kind: 'owner', owner: 'Olga S.' } }, detail: '1 case given to Olga S.' },
    ]));
    cleanup();
    server();
    onThePage(<ListChapter />, { canEdit: false }, '/p/list/case', '/p/list/:kind');
    await waitFor(() => expect(idsIn('table')).toHaveLength(4));
    expect(screen.queryByRole('button', { name: /^Priority of/ })).toBeNull();
  });

  describe('cell by cell, with the keys of a spreadsheet', () => {
    const focused = (): string => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '';
    const press = (key: string, more: object = {}): boolean => fireEvent.keyDown(document.activeElement ?? document.body, { key, ...more });
    const at = (name: string): void => act(() => screen.getByRole('button', { name }).focus());
    const bodies = (of: ReturnType<typeof server>): unknown[] => of.calls('changeMany').map((call) => call.body);
    /** A table in the order C-1, C-2, C-3, C-4. */
    const opened = async () => {
      const of = server();
      table('/p/list/case?group=none&sort=id');
      await waitFor(() => expect(idsIn('table')).toEqual(['C-1', 'C-2', 'C-3', 'C-4']));
      return of;
    };

    test('arrows lead along the line and down the column; a letter writes, Enter goes down, Tab on, Escape back', async () => {
      const of = await opened();
      at('Module of C-1: Meters');
      press('ArrowDown');
      expect(focused()).toBe('Module of C-2: Counter');
      press('ArrowRight');
      expect(focused()).toBe('Priority of C-2: Medium');
      press('ArrowLeft');
      press('ArrowLeft');
      expect(focused()).toBe('State of C-2: Agreed');
      press('ArrowLeft');
      expect(focused()).toContain('Pay in coins');
      press('ArrowRight');
      press('ArrowRight');
      expect(press('P')).toBe(false);
      const field = (): HTMLInputElement => document.activeElement as HTMLInputElement;
      expect([focused(), field().value]).toEqual(['Module of C-2', 'P']);
      fireEvent.change(field(), { target: { value: 'Payments' } });
      press('Enter');
      await waitFor(() => expect(focused()).toBe('Module of C-3: Counter'));
      press('F2');
      fireEvent.change(field(), { target: { value: 'Never' } });
      press('Escape');
      await waitFor(() => expect(focused()).toBe('Module of C-3: Counter'));
      press('F2');
      press('Tab');
      await waitFor(() => expect(focused()).toBe('Priority of C-3: Low'));
      // Choices opened and left: the arrows are the table's again.
      press('F2');
      await screen.findByRole('option', { name: 'Medium' });
      press('Escape');
      await waitFor(() => expect([focused(), screen.queryByRole('option', { name: 'Medium' })]).toEqual(['Priority of C-3: Low', null]));
      press('ArrowUp');
      expect(focused()).toBe('Priority of C-2: Medium');
      expect(bodies(of)).toEqual([{ of: { ids: ['C-2'] }, done: { kind: 'edit', edit: { kind: 'module', module: 'Payments' } }, detail: '1 case moved to Payments' }]);
    });

    test('a title is written where it stands, and never emptied', async () => {
      const of = await opened();
      act(() => within(screen.getByRole('table')).getByRole('link', { name: /Read the dial/ }).focus());
      press('F2');
      fireEvent.change(document.activeElement!, { target: { value: 'Read the dial twice' } });
      press('Enter');
      await waitFor(() => expect(bodies(of)).toEqual([{ of: { ids: ['C-1'] }, done: { kind: 'edit', edit: { kind: 'title', title: 'Read the dial twice' } }, detail: '1 case called Read the dial twice' }]));
      fireEvent.click(screen.getByRole('button', { name: 'Rename C-4' }));
      expect((document.activeElement as HTMLInputElement).value).toBe('Turn of the dial');
      fireEvent.change(document.activeElement!, { target: { value: '  ' } });
      press('Enter');
      await waitFor(() => expect(screen.queryByRole('combobox', { name: 'Title of C-4' })).toBeNull());
      expect(of.calls('changeMany')).toHaveLength(1);
    });

    test('Delete empties, Ctrl D fills from above, what is pasted goes into all that are selected, and is copied as it stands', async () => {
      const of = await opened();
      at('Owner of C-2: Rui M.');
      press('Delete');
      at('Module of C-2: Counter');
      press('d', { ctrlKey: true });
      for (const id of ['C-2', 'C-3']) fireEvent.click(screen.getByRole('checkbox', { name: `Select ${id}` }));
      at('Priority of C-3: Low');
      const clipboard = { getData: () => 'high\tmore\r\nlines', setData: (_: string, text: string) => copied.push(text) };
      const copied: string[] = [];
      fireEvent.copy(document.activeElement!, { clipboardData: clipboard });
      fireEvent.paste(document.activeElement!, { clipboardData: clipboard });
      await waitFor(() => expect(bodies(of)).toMatchObject([
        { of: { ids: ['C-2'] }, done: { edit: { kind: 'owner', owner: '' } } },
        { of: { ids: ['C-2'] }, done: { edit: { kind: 'module', module: 'Meters' } } },
        { of: { ids: ['C-2', 'C-3'] }, done: { edit: { kind: 'priority', priority: 'high' } }, detail: '2 cases set to priority high' },
      ]));
      expect(copied).toEqual(['Low']);
      // What it cannot hold is told, and nothing is sent; a picture on the clipboard empties nothing.
      fireEvent.paste(screen.getByRole('button', { name: /^Module of C-1/ }), { clipboardData: { getData: () => '' } });
      fireEvent.paste(screen.getByRole('button', { name: /^Priority of C-1/ }), { clipboardData: { getData: () => 'sky blue' } });
      expect(of.calls('changeMany')).toHaveLength(3);
    });
  });

  test('says how many of how many match, and what there is not', async () => {
    server();
    table('/p/list/case?query=tag:smoke');
    await screen.findByText('2 of 4 cases');
    type('tag:nowhere');
    await screen.findByText('No case matches the query.');
    fireEvent.click(screen.getByRole('link', { name: 'data sets' }));
    await screen.findByText('No data set yet.');
  });
});
