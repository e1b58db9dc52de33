/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { useState } from 'react';
import { DEFAULT_SETTINGS, type Keepers, type ProjectSettings } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { ModulesEditor } from './ModulesEditor.tsx';
import { PrioritiesEditor } from './PrioritiesEditor.tsx';
import { TagsEditor } from './TagsEditor.tsx';

afterEach(cleanup);

const heads = [requirementHead(1, { module: 'Bills' }), caseHead(1, { module: 'Bills', tags: ['smoke', 'night'] }), caseHead(2, { module: 'Access', tags: ['Smoke'] }), caseHead(3, { state: 'withdrawn', module: 'Bills', tags: ['smoke'] })];
let order: readonly string[] = [];
const [RUI, OLGA, TERESA] = ['00000000-0000-4000-8000-000000000011', '00000000-0000-4000-8000-000000000012', '00000000-0000-4000-8000-000000000013'];

function Held({ start }: { readonly start: readonly string[] }) {
  const [now, setNow] = useState(start);
  const change = (next: readonly string[]): void => {
    order = next;
    setNow(next);
  };
  const [keepers, setKeepers] = useState<readonly Keepers[]>([]);
  return <ModulesEditor order={now} keepers={keepers} canEdit canLead onChange={(part) => (part.modules !== undefined && change(part.modules), part.keepers !== undefined && setKeepers(part.keepers))} />;
}

function server(modules: readonly string[] = []) {
  order = modules;
  return standInProject(heads, [], { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, modules: [...modules] } }), changeMany: () => ({ change: null, changed: 2, made: [], left: [] }), saveSettings: ({ body }) => ({ version: 2, settings: body }) });
}
const lines = (name: string): string[] => within(screen.getByRole('list', { name })).queryAllByRole('listitem').map((li) => [...li.querySelectorAll(':scope > span')].slice(0, 2).map((s) => s.textContent).join(': '));
const rename = (from: string, to: string, button: string): void => {
  fireEvent.click(screen.getByRole('button', { name: `Rename ${from}` }));
  const dialog = within(screen.getByRole('dialog'));
  fireEvent.change(dialog.getByLabelText('New name'), { target: { value: to } });
  fireEvent.click(dialog.getByRole('button', { name: button }));
};

test('modules stand in the order of the project, then by the alphabet; moved they keep the place', async () => {
  server(['Zulu']);
  onThePage(<Held start={['Zulu']} />);
  await waitFor(() => expect(lines('Modules')).toEqual(['Zulu: not in use', 'Access: 1 case', 'Bills: 1 requirement, 2 cases']));
  fireEvent.click(screen.getByRole('button', { name: 'Move Bills up' }));
  expect(order).toEqual(['Zulu', 'Bills', 'Access']);
});

test('a lead says who changes a module; one that is given back is everybody’s', async () => {
  const members = [{ id: RUI, name: 'Rui M.', email: 'rui@example.com', role: 'analyst', sees: null }, { id: OLGA, name: 'Olga S.', email: 'olga@example.com', role: 'reader', sees: null }, { id: TERESA, name: 'Teresa L.', email: 'teresa@example.com', role: 'lead', sees: null }] as const;
  standInProject(heads, [], { listMembers: () => [...members], changeMany: () => ({ change: null, changed: 2, made: [], left: [] }) });
  onThePage(<Held start={['Bills', 'Access']} />);
  fireEvent.click(await screen.findByRole('button', { name: /^changed by everybody.*Bills$/ }));
  expect(await screen.findByText(/^Teresa L. may change everything/)).toBeTruthy();
  expect(screen.queryByLabelText('Olga S.')).toBeNull();
  fireEvent.click(screen.getByLabelText('only these, and leads'));
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Set' }).disabled).toBe(true);
  fireEvent.click(screen.getByLabelText('Rui M.'));
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  await screen.findByRole('button', { name: /^changed by Rui M. and leads only.*Bills$/ });
  fireEvent.click(screen.getByRole('button', { name: /^changed by Rui M. and leads only.*Bills$/ }));
  fireEvent.click(screen.getByLabelText('everybody who may edit'));
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  expect(await screen.findByRole('button', { name: /^changed by everybody.*Bills$/ })).toBeTruthy();
});

test('a module is renamed in all that has it, withdrawn ones too; a name that is there joins the two, and has its place once', async () => {
  const stand = server(['Bills', 'Access']);
  onThePage(<Held start={['Bills', 'Access']} />);
  await waitFor(() => expect(lines('Modules')[0]).toBe('Bills: 1 requirement, 2 cases'));
  fireEvent.click(screen.getByRole('button', { name: 'Rename Bills' }));
  expect([screen.getByRole('button', { name: 'Rename' }), screen.getByRole('status').textContent]).toMatchObject([{ disabled: true }, '1 requirement, 2 cases.']);
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  rename('Bills', 'access', 'Join');
  await waitFor(() => expect(stand.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['R-1', 'C-1', 'C-3'] }, done: { kind: 'edit', edit: { kind: 'module', module: 'Access' } }, detail: 'module “Bills” joined with “Access”' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  // At once with all that has the name: nothing of it waits for another save.
  await waitFor(() => expect(stand.calls('saveSettings').map((c) => (c.body as ProjectSettings).modules)).toEqual([['Access']]));
});

test('a module that some keep is renamed with its keepers; one that has neither a place nor keepers changes no setting', async () => {
  const keepers = [{ module: 'Bills', people: [RUI] }];
  const stand = standInProject(heads, [], { readSettings: () => ({ version: 7, settings: { ...DEFAULT_SETTINGS, keepers } }), changeMany: () => ({ change: null, changed: 2, made: [], left: [] }), saveSettings: ({ body }) => ({ version: 8, settings: body }) });
  onThePage(<ModulesEditor order={[]} keepers={keepers} canEdit canLead onChange={() => undefined} />);
  await screen.findByRole('button', { name: 'Rename Access' });
  rename('Access', 'Entrance', 'Rename');
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  rename('Bills', 'Invoices', 'Rename');
  await waitFor(() => expect(stand.calls('saveSettings').map((c) => [c.headers.get('if-match'), (c.body as ProjectSettings).keepers])).toEqual([['"7"', [{ module: 'Invoices', people: [RUI] }]]]));
});

test('tags that differ only in capitals are one; renamed, and removed, everywhere', async () => {
  const stand = server();
  onThePage(<TagsEditor canEdit />);
  await waitFor(() => expect(lines('Tags')).toEqual(['night: 1 case', 'smoke: 3 cases']));
  rename('smoke', 'smoke run', 'Rename');
  await waitFor(() => expect(stand.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['C-1', 'C-2', 'C-3'] }, done: { edit: { kind: 'tags', from: ['smoke'], to: 'smoke run' } } }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Remove night' }));
  await waitFor(() => expect(stand.calls('changeMany')[1]?.body).toMatchObject({ of: { ids: ['C-1'] }, done: { edit: { from: ['night'], to: null } }, detail: 'tag “night” removed from 1 case' }));
});

/** The editor with what it makes of the list. */
function Listed() {
  const [now, setNow] = useState<readonly string[]>(['must', 'should', 'could']);
  return <PrioritiesEditor priorities={now} canEdit onChange={(next) => (setNow(next), (order = next))} />;
}

test('priorities are ordered, added, and taken away where nothing has them; renamed in all that has one, or joined', async () => {
  const stand = standInProject([caseHead(1, { priority: 'must' }), caseHead(2, { priority: 'high' }), requirementHead(1, { priority: 'must' })], [], { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, priorities: ['must', 'should'] } }), changeMany: () => ({ change: null, changed: 2, made: [], left: [] }), saveSettings: ({ body }) => ({ version: 2, settings: body }) });
  onThePage(<Listed />);
  await waitFor(() => expect(lines('Priorities')).toEqual(['must: 1 requirement, 1 case', 'should: not in use', 'could: not in use', 'high: 1 case']));
  expect([screen.getByText('not among them any more'), screen.getByText(/What is new begins with should/)]).toHaveLength(2);
  expect(screen.getByRole('button', { name: /^Remove must/ })).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByRole('button', { name: 'Move could up' }));
  expect(order).toEqual(['must', 'could', 'should']);
  fireEvent.click(screen.getByRole('button', { name: 'Remove should' }));
  expect(order).toEqual(['must', 'could']);
  expect(screen.getByRole('button', { name: 'Remove could' })).toHaveProperty('disabled', true);
  fireEvent.change(screen.getByLabelText('Another priority'), { target: { value: 'COULD' } });
  expect(screen.getByText('It is there already.')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Another priority'), { target: { value: ' later ' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  expect(order).toEqual(['must', 'could', 'later']);
  rename('high', 'Must', 'Join');
  await waitFor(() => expect(stand.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['C-2'] }, done: { edit: { kind: 'priority', priority: 'must' } }, detail: 'priority “high” joined with “must”' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  rename('must', 'musts', 'Rename');
  await waitFor(() => expect(stand.calls('saveSettings').map((c) => (c.body as ProjectSettings).priorities)).toEqual([['musts', 'should']]));
});
