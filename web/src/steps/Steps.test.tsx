/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, plainStep, stepId, type CaseContent } from '@caderno/core/cases';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { StandInUpload } from '../../test/standInUploads.ts';
import { Steps } from './Steps.tsx';
import { useOpened } from './useOpened.ts';

let content: CaseContent;
let taken: readonly string[] = [];

beforeEach(() => void standInProject([caseHead(1), caseHead(2, { title: 'Sign in' })], [], { readLibrary: () => [] }));
afterEach(cleanup);

const FOUR: CaseContent = { ...EMPTY_CASE, steps: ['open', 'read', 'enter', 'send'].map((action) => plainStep(stepId(action), action)) };

const keep = (now: CaseContent): CaseContent => (content = now);

function Page({ first }: { readonly first: CaseContent }) {
  const [now, setNow] = useState(() => keep(first));
  const opened = useOpened(now);
  return <Steps steps={now.steps} context={{ parameters: now.parameters, values: null, constants: new Map(), onCreate: () => undefined }} opened={opened} canEdit update={(change) => setNow((before) => keep(change(before)))} onTakeOut={(ids) => (taken = ids)} onPutBack={() => undefined} />;
}

const actions = (): string[] => content.steps.map((s) => (s.kind === 'step' ? s.action : s.kind));
const select = (number: number, through = false): void => void fireEvent.click(screen.getByRole('checkbox', { name: `Select step ${number}` }), { shiftKey: through });
/** A clipboard as browsers hand it over. */
const clipboard = (data: Record<string, string> = {}) => ({ data, getData: (type: string) => data[type] ?? '', setData: (type: string, text: string) => void (data[type] = text), types: Object.keys(data), files: [] });
const next = (): HTMLElement => screen.getByRole('button', { name: /Write the next step/ });

test('steps that are selected are moved, duplicated and removed together by keys, and only a run of them is taken out', async () => {
  onThePage(<Page first={FOUR} />);
  select(1);
  select(3);
  const bar = (): ReturnType<typeof within> => within(screen.getByRole('toolbar', { name: 'Selected steps' }));
  expect(bar().getByText('only steps that follow each other can be taken out')).toBeTruthy();
  const box = screen.getByRole('checkbox', { name: 'Select step 1' });
  fireEvent.keyDown(box, { key: 'ArrowDown', altKey: true });
  expect(actions()).toEqual(['read', 'open', 'send', 'enter']);
  fireEvent.keyDown(box, { key: 'd', ctrlKey: true });
  expect(actions()).toEqual(['read', 'open', 'send', 'enter', 'open', 'enter']);
  // The copies are selected now: a run, which can be taken out.
  fireEvent.click(bar().getByRole('button', { name: 'Take out into shared steps' }));
  expect(taken).toEqual(content.steps.slice(4).map((s) => s.id));
  select(1);
  select(3, true);
  fireEvent.keyDown(screen.getByRole('checkbox', { name: 'Select step 1' }), { key: 'Delete' });
  expect(actions()).toEqual(['enter', 'open', 'enter']);
  await waitFor(() => expect(screen.queryByRole('toolbar', { name: 'Selected steps' })).toBeNull());
});

test('files are pasted into a step, dropped onto it or chosen for it, and taken away again; a picture beside text is no file', async () => {
  StandInUpload.install();
  onThePage(<Page first={FOUR} />);
  const line = (): HTMLElement => screen.getByRole('checkbox', { name: 'Select step 2' }).closest('li')!;
  const png = (name: string): File => new File(['x'], name, { type: 'image/png' });
  const filesOf = (step: number): string[] => {
    const found = content.steps[step];
    return found?.kind === 'step' ? found.attachments.map((a) => a.name) : [];
  };
  const kept = async (n: number): Promise<void> => {
    await waitFor(() => expect(StandInUpload.all).toHaveLength(n));
    const sent = StandInUpload.all[n - 1]!;
    await act(async () => sent.answer({ id: String(n).repeat(64), name: sent.file!.name, type: 'image/png', size: 1 }));
  };
  fireEvent.paste(line(), { clipboardData: { ...clipboard({ 'text/plain': 'table', 'text/html': '<table>' }), files: [png('table.png')] } });
  expect(StandInUpload.all).toEqual([]);
  fireEvent.paste(line(), { clipboardData: { ...clipboard(), files: [png('screen.png')], types: ['Files'] } });
  await kept(1);
  fireEvent.drop(line(), { dataTransfer: { files: [png('dropped.png')], types: ['Files'] } });
  await kept(2);
  fireEvent.change(screen.getByLabelText('Files for step 2'), { target: { files: [png('chosen.png')] } });
  await kept(3);
  expect([filesOf(0), filesOf(1)]).toEqual([[], ['screen.png', 'dropped.png', 'chosen.png']]);
  fireEvent.click(within(screen.getByRole('list', { name: 'Files of step 2' })).getByRole('button', { name: 'Remove dropped.png' }));
  expect(filesOf(1)).toEqual(['screen.png', 'chosen.png']);
});

test('steps are copied and cut as they are, to be pasted elsewhere with new ids', () => {
  onThePage(<Page first={FOUR} />);
  select(2);
  const [copied, box] = [clipboard(), screen.getByRole('checkbox', { name: 'Select step 2' })];
  fireEvent.copy(box, { clipboardData: copied });
  expect(copied.data['text/plain']).toContain('read');
  fireEvent.cut(box, { clipboardData: clipboard() });
  expect(actions()).toEqual(['open', 'enter', 'send']);
  fireEvent.paste(next(), { clipboardData: copied });
  expect(actions()).toEqual(['open', 'enter', 'send', 'read']);
  expect(content.steps[3]!.id).not.toBe('read');
});

test('many lines that are pasted become steps, with what is expected where they say so; a table asks which column is what', async () => {
  onThePage(<Page first={EMPTY_CASE} />);
  fireEvent.paste(next(), { clipboardData: clipboard({ 'text/plain': '1. open the page\n2. read the dial\n   => the reading is shown\n\n3) send it' }) });
  expect(content.steps.map((s) => (s.kind === 'step' ? [s.action, s.expected] : s.kind))).toEqual([['open the page', ''], ['read the dial', 'the reading is shown'], ['send it', '']]);
  fireEvent.paste(next(), { clipboardData: clipboard({ 'text/plain': 'No\tAction\tExpected result\n1\tclose\tit is closed\n2\tleave\t' }) });
  expect(content.steps.slice(3)).toMatchObject([{ action: 'close', expected: 'it is closed' }, { action: 'leave', expected: '' }]);
  // What nobody can be sure of is asked, and shown before it is pasted.
  fireEvent.paste(next(), { clipboardData: clipboard({ 'text/plain': 'green\tlock\tit is locked\nred\tbar\tit is barred' }) });
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.getByText(/The first step:/)).toBeTruthy();
  fireEvent.click(dialog.getByRole('button', { name: 'Paste 2 steps' }));
  await waitFor(() => expect(content.steps).toHaveLength(7));
});

test('a slash where the next step would stand offers what can be used there', async () => {
  const user = userEvent.setup();
  onThePage(<Page first={FOUR} />);
  next().focus();
  await user.keyboard('/');
  await screen.findByRole('dialog');
  await user.keyboard('sign');
  await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(1));
  await user.keyboard('{Enter}');
  await waitFor(() => expect(content.steps.at(-1)).toMatchObject({ kind: 'call', case: 'C-2' }));
});

test('a use says which version it means: the agreed one, until that is moved to the latest or to one that stays', async () => {
  const called = { kind: 'case' as const, id: 'C-2' as const, withdrawn: false, content: { ...EMPTY_CASE, title: 'Sign in' } };
  standInProject([caseHead(1), caseHead(2, { title: 'Sign in', version: 4, agreed: 2 }), caseHead(3, { title: 'Sign out', version: 3 })], [], {
    readLibrary: () => [{ key: 'C-2@agreed', used: { ...called, version: 2 } }, { key: 'C-2', used: { ...called, version: 4 } }, { key: 'C-3@agreed', used: { ...called, id: 'C-3', version: 3 } }],
  });
  const use = (id: string, of: 'C-2' | 'C-3') => ({ kind: 'call' as const, id: stepId(id), case: of, pinned: 'agreed' as const, rows: { kind: 'mine' as const }, arguments: [] });
  onThePage(<Page first={{ ...EMPTY_CASE, steps: [use('u', 'C-2'), use('v', 'C-3')] }} />);
  const standing = await screen.findByText(/follows what is agreed, v2/);
  expect(standing.textContent).toBe('follows what is agreed, v2; v4 is there · compare · follow the latest');
  expect(within(standing).getByRole('link').getAttribute('href')).toBe('/p/versions/C-2?from=2&to=4');
  expect(screen.getByText(/nothing is yet, so this is the latest/)).toBeTruthy();
  fireEvent.click(screen.getAllByRole('button', { name: 'values' })[0]!);
  const choose = async (name: string): Promise<void> => {
    fireEvent.click(within(await screen.findByRole('dialog')).getByRole('button', { name: /^Version/ }));
    fireEvent.click(await screen.findByRole('option', { name }));
  };
  await choose('stay with v2');
  expect(content.steps[0]).toMatchObject({ pinned: 2 });
  await choose('follow what is agreed');
  expect(content.steps[0]).toMatchObject({ pinned: 'agreed' });
  await choose('follow the latest');
  expect(content.steps.map((s) => 'pinned' in s && s.pinned)).toEqual([null, 'agreed']);
});

test('values that are asked for before the steps used are known open when they are, and not again once closed', async () => {
  let tell = (): void => undefined;
  const read = new Promise<void>((resolve) => (tell = resolve));
  standInProject([caseHead(1), caseHead(2, { title: 'Sign in' })], [], {
    readLibrary: async () => {
      await read;
      return [{ key: 'C-2', used: { kind: 'case', id: 'C-2', withdrawn: false, content: { ...EMPTY_CASE, title: 'Sign in' }, version: 1 } }];
    },
  });
  onThePage(<Page first={{ ...EMPTY_CASE, steps: [{ kind: 'call', id: stepId('u'), case: 'C-2', pinned: null, rows: { kind: 'mine' }, arguments: [] }] }} />);
  fireEvent.click(await screen.findByRole('button', { name: 'values' }));
  expect(screen.queryByRole('dialog')).toBeNull();
  tell();
  const dialog = await screen.findByRole('dialog', { name: 'Values of C-2 Sign in' });
  fireEvent.click(within(dialog).getByRole('button', { name: 'Done' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});
