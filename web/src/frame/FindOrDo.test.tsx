/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Summary } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useMemo } from 'react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { useCommands } from './commands.ts';
import { FindField } from './FindField.tsx';
import { FindOrDo } from './FindOrDo.tsx';
import { HelpDialog } from './HelpDialog.tsx';
import { useFrameCommands } from './useFrameCommands.ts';

afterEach(cleanup);

let done = '';
const close = (): void => void (done += 'closed ');

function Page({ children }: { readonly children: React.ReactNode }) {
  useCommands(useMemo(() => [{ id: 'wash', title: 'Wash the dial', keys: 'w d', keyLabel: 'w d', run: () => void (done += 'washed ') }], []));
  return <>{children}</>;
}

function Anywhere({ canEdit }: { readonly canEdit: boolean }) {
  useFrameCommands({ project: 'p', canEdit }, close);
  return <FindOrDo project="p" onClose={close} />;
}

function find(found: (words: string) => readonly Summary[]) {
  done = '';
  const server = standInProject([], [], { find: ({ query }) => [...found(query.words)] });
  onThePage(<Page><FindOrDo project="p" onClose={close} /></Page>);
  return server;
}
const options = (): string[] => screen.queryAllByRole('option').map((o) => o.textContent ?? '');

test('what is found by words and what can be done stand in one list, and Enter takes the first', async () => {
  const user = userEvent.setup();
  const server = find((words) => (words.startsWith('dial') ? [caseHead(7, { title: 'Read the dial', module: 'Meters' }), requirementHead(3, { title: 'The dial', sourceId: 'WEB-9' })] : []));
  expect(options()).toEqual([expect.stringContaining('Wash the dial')]);
  expect(server.calls('find')).toEqual([]);
  await user.type(screen.getByRole('combobox', { name: 'Find or do anything' }), 'dial');
  await waitFor(() => expect(options()).toEqual(['C-7Read the dialcase · Meters', 'R-3The dialWEB-9requirement', 'doWash the dialw d']));
  await user.keyboard('{Enter}');
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/cases/C-7'));
  expect(done).toBe('closed ');
});

test('a command is found by its words in any order and done', async () => {
  const user = userEvent.setup();
  find(() => []);
  await user.type(screen.getByRole('combobox'), 'dial wash');
  await waitFor(() => expect(options()).toHaveLength(1));
  await user.keyboard('{Enter}');
  expect(done).toBe('closed washed ');
});

test.each([
  { canEdit: true, offered: ['doImport cases from a file'], leads: '/p/import-cases' },
  { canEdit: false, offered: [], leads: '/p/here' },
])('whoever may write brings a file in from any page; who may not ($canEdit) is not offered it', async ({ canEdit, offered, leads }) => {
  const user = userEvent.setup();
  standInProject([], [], { find: () => [] });
  onThePage(<Anywhere canEdit={canEdit} />);
  await user.type(screen.getByRole('combobox'), 'import cases');
  await waitFor(() => expect(options()).toEqual(offered));
  await user.keyboard('{Enter}');
  expect(screen.getByTitle('Address').textContent).toBe(leads);
});

test('what is typed before the field has come is in it when it comes, and is not there the next time', async () => {
  done = '';
  const server = standInProject([], [], { find: () => [] });
  const page = (isOpen: boolean) => <Page><FindField project="p" isOpen={isOpen} onClose={close} /></Page>;
  const { again } = onThePage(page(true));
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Find or do anything' }));
  fireEvent.change(screen.getByRole('textbox'), { target: { value: 'wash' } });
  const field = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Find or do anything' });
  await waitFor(() => expect([field().value, options()]).toEqual(['wash', ['doWash the dialw d']]));
  await userEvent.type(field(), ' dry');
  await waitFor(() => expect([field().value, server.calls('find').length > 0, options()]).toEqual(['wash dry', true, []]));
  await userEvent.keyboard('{Escape}');
  expect(done).toBe('closed ');
  again(page(false));
  again(page(true));
  expect(field().value).toBe('');
});

test('where nothing is found it says so', async () => {
  const user = userEvent.setup();
  find(() => []);
  await user.type(screen.getByRole('combobox'), 'no such thing');
  expect(await screen.findByText(/Nothing has these words/)).toBeTruthy();
});

test('help names what the page is for, what it can do by keys, and the techniques where they are used', () => {
  standInProject([], []);
  const { unmount } = onThePage(<Page><HelpDialog onClose={close} /></Page>, {}, '/p/conditions');
  expect(screen.getByText('Wash the dial')).toBeTruthy();
  expect(screen.getByText('Techniques')).toBeTruthy();
  unmount();
  onThePage(<Page><HelpDialog onClose={close} /></Page>, {}, '/p/people');
  expect(screen.queryByText('Techniques')).toBeNull();
});
