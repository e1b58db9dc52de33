/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { parameterId } from '@caderno/core/cases';
import { takenApart, type Phrase } from '@caderno/core/scenarios';
import { EMPTY_SHARED, type SharedContent } from '@caderno/core/shared';
import { DEFAULT_SETTINGS, type ProjectSettings } from '@caderno/contract';
import { onThePage } from '../../../test/onThePage.tsx';
import { featureHead, sharedHead, standInProject } from '../../../test/standInProject.ts';
import { PhrasebookPage } from './PhrasebookPage.tsx';

afterEach(cleanup);

const keyOf = (text: string) => takenApart(text).key;
const phrase = (text: string, uses: number, kind: 'given' | 'when' | 'then' = 'then') => {
  const { key, values } = takenApart(text);
  return { key, holes: values.map((v) => v.kind), uses, features: 1, kinds: { given: 0, when: 0, then: 0, other: 0, [kind]: uses } } satisfies Phrase;
};
const PHRASES = [phrase('the ledger holds 4 m³', 3), phrase('the clerk enters "x"', 2, 'when'), phrase('it ends', 1), phrase('the ledger keeps 4 m³', 1)];
const USES = [
  { key: keyOf('the ledger keeps 4 m³'), scenario: 3, line: 7, text: 'the ledger keeps 12 m³' },
  { key: keyOf('the ledger holds 4 m³'), scenario: 0, line: 2, text: 'the ledger holds <n> m³' },
];

function page(agreedPhrases: string[] = [], phrases: Phrase[] = PHRASES) {
  let settings: ProjectSettings = { ...DEFAULT_SETTINGS, agreedPhrases };
  const server = standInProject([featureHead(1, { title: 'Bill' })], [], {
    readSettings: () => ({ settings, version: 4, broken: [] }) as never,
    saveSettings: ({ body }) => {
      settings = body as ProjectSettings;
      return { settings, version: 5, broken: [] } as never;
    },
    readPhrases: () => ({ phrases: phrases.map((p) => ({ ...p, holes: [...p.holes] })), alike: [{ why: 'oneWord', keys: [keyOf('the ledger holds 4 m³'), keyOf('the ledger keeps 4 m³')] }] }),
    findPhraseUses: () => ({ total: 2, features: [{ id: 'F-1', uses: USES }] }),
    changeMany: () => ({ change: null, changed: 1, made: [], left: [] }),
  });
  onThePage(<PhrasebookPage />);
  return server;
}
const all = () => within(screen.getByRole('heading', { name: 'All phrases' }).closest('section') as HTMLElement);
const lines = () => all().getAllByRole('button', { name: /^Uses of/ }).map((button) => button.textContent);

test('phrases stand by how often they are used, agreed ones first, found by words and by what they are said as', async () => {
  page([keyOf('it ends')]);
  await waitFor(() => expect(lines()).toEqual(['Thenit ends', 'Thenthe ledger holds {int} m³', 'Whenthe clerk enters {string}', 'Thenthe ledger keeps {int} m³']));
  expect(screen.getByText('4 phrases in 7 steps')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Find phrases'), { target: { value: 'ledger ke' } });
  await waitFor(() => expect(lines()).toEqual(['Thenthe ledger keeps {int} m³']));
  fireEvent.change(screen.getByLabelText('Find phrases'), { target: { value: 'none' } });
  await screen.findByText('No phrase has these words.');
});

test('an opened phrase shows where it is used; agreed, it is kept with the settings', async () => {
  const server = page();
  fireEvent.click(await screen.findByRole('button', { name: 'Uses of it ends' }));
  await waitFor(() => expect(all().getAllByRole('link').map((a) => [a.textContent, a.getAttribute('href')])).toEqual([['F-1/3', '/p/scenarios/F-1#3'], ['F-1', '/p/scenarios/F-1']]));
  fireEvent.click(all().getAllByRole('button', { name: 'agree' })[0]!);
  await waitFor(() => expect((server.calls('saveSettings')[0]?.body as ProjectSettings).agreedPhrases).toEqual([keyOf('the ledger holds 4 m³')]));
});

test('one wording is seen in every use before it is written; a wording with other values is refused for those it does not fit', async () => {
  const server = page();
  fireEvent.click(await screen.findByRole('button', { name: 'Word all as the ledger holds {int} m³' }));
  const dialog = within(await screen.findByRole('dialog'));
  await waitFor(() => expect(dialog.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['F-1, 7the ledger keeps 12 m³the ledger holds 12 m³']));
  fireEvent.change(dialog.getByLabelText('Wording'), { target: { value: 'the ledger is full' } });
  await dialog.findByText(/have other values and stay as they are/);
  expect(dialog.getByRole('button', { name: 'Reword 0 steps' })).toMatchObject({ disabled: true });
  fireEvent.change(dialog.getByLabelText('Wording'), { target: { value: '{int} m³ stand in the ledger' } });
  await waitFor(() => expect(dialog.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['F-1, 7the ledger keeps 12 m³12 m³ stand in the ledger', 'F-1, 2the ledger holds <n> m³<n> m³ stand in the ledger']));
  fireEvent.click(dialog.getByRole('button', { name: 'Reword 2 steps' }));
  await waitFor(() => expect(server.calls('changeMany')[0]?.body).toMatchObject({ of: { ids: ['F-1'] }, done: { kind: 'edit', edit: { kind: 'wording', from: [keyOf('the ledger holds 4 m³'), keyOf('the ledger keeps 4 m³')], to: '{} m³ stand in the ledger' } } }));
});

test('agreed phrases that nobody uses stand among them; ambiguous ones are told and asked for', async () => {
  page([keyOf('the clerk leaves 4'), keyOf('it rains')], [...PHRASES, phrase('the clerk enters 4', 5, 'when')]);
  await waitFor(() => expect(lines()).toEqual(['the clerk leaves {}', 'it rains', 'Thenthe ledger holds {int} m³', 'Whenthe clerk enters {string}', 'Thenit ends', 'Thenthe ledger keeps {int} m³', 'Whenthe clerk enters {int}']));
  expect(screen.getByText('5 phrases in 12 steps')).toBeTruthy();
  const ask = async (which: string): Promise<void> => {
    fireEvent.click(all().getByRole('button', { name: /^Which/ }));
    fireEvent.click(await screen.findByRole('option', { name: which }));
  };
  await ask('agreed, used nowhere');
  await waitFor(() => expect(lines()).toEqual(['the clerk leaves {}', 'it rains']));
  await ask('ambiguous');
  await waitFor(() => expect(lines()).toEqual(['Whenthe clerk enters {string}', 'Whenthe clerk enters {int}']));
  expect(all().getAllByTitle(/differs only in quotation marks/)).toHaveLength(2);
  await ask('used once');
  await waitFor(() => expect(lines()).toEqual(['Thenit ends', 'Thenthe ledger keeps {int} m³']));
});

test('a phrase is said in full by shared steps that are there, value by value, by others in their stead, or by new ones', async () => {
  const parameter = (name: string) => ({ id: parameterId(`p-${name}`), name, type: 'text' as const, default: '', description: '' });
  const key = keyOf('the clerk enters "x"');
  const contents: Record<string, SharedContent> = {
    'S-1': { ...EMPTY_SHARED, title: 'Type it', parameters: [parameter('meter'), parameter('reading')] },
    'S-2': { ...EMPTY_SHARED, title: 'Say it', parameters: [parameter('word')], phrases: [{ id: 'd', phrase: key, values: [parameter('word').id] }] },
  };
  const heads = [sharedHead(1, { title: 'Type it', version: 3, parameters: ['meter', 'reading'] }), sharedHead(2, { title: 'Say it', phrases: [{ phrase: key, takes: ['word'] }] }), sharedHead(3, { title: 'Withdrawn', state: 'withdrawn' })];
  const server = standInProject(heads, [], {
    readPhrases: () => ({ phrases: PHRASES.map((p) => ({ ...p, holes: [...p.holes] })), alike: [] }),
    readArtefact: ({ params: { id } }) => ({ kind: 'shared', summary: heads.find((h) => h.id === id), content: contents[id], draft: null }) as never,
    writeArtefacts: ({ body }) => ({ change: null, made: body.made.map(() => 'S-4') }) as never,
  });
  onThePage(<PhrasebookPage />);
  const written = () => server.calls('writeArtefacts').map(({ body }) => body as { made: { content: SharedContent }[]; changed: { id: string; version: number; content: SharedContent }[] });
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'What the clerk enters {string} says in full: S-2' }));
  let dialog = within(await screen.findByRole('dialog'));
  expect(await dialog.findByRole('button', { name: 'Save' })).toMatchObject({ disabled: true });
  const field = dialog.getByRole('combobox', { name: 'The shared steps that say it in full' });
  fireEvent.change(field, { target: { value: 'i' } });
  await waitFor(() => expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['S-1 Type it <meter> <reading>']));
  fireEvent.keyDown(field, { key: 'ArrowDown' });
  fireEvent.keyDown(field, { key: 'Enter' });
  await user.click(await dialog.findByRole('button', { name: 'Parameter for value 1 of the clerk enters {string}: <meter>' }));
  await user.click(await screen.findByRole('option', { name: '<reading>' }));
  expect(dialog.getByText(/<meter> keeps what its default says/)).toBeTruthy();
  await user.click(dialog.getByRole('button', { name: 'Let S-1 say it in full' }));
  await waitFor(() => expect(written()).toHaveLength(1));
  expect(written()[0]?.changed.map((c) => [c.id, c.version, c.content.phrases.map((p) => [p.phrase, p.values])])).toEqual([['S-1', 3, [[key, ['p-reading']]]], ['S-2', 1, []]]);
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());

  await user.click(screen.getByRole('button', { name: 'What the clerk enters {string} says in full: S-2' }));
  dialog = within(await screen.findByRole('dialog'));
  await user.click(await dialog.findByRole('button', { name: 'Take it away' }));
  await waitFor(() => expect(written()[1]?.changed.map((c) => [c.id, c.content.phrases])).toEqual([['S-2', []]]));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());

  await user.click(screen.getByRole('button', { name: 'Say in full what the ledger holds {int} m³ means' }));
  dialog = within(await screen.findByRole('dialog'));
  await user.click(dialog.getByRole('button', { name: 'Write new shared steps' }));
  await waitFor(() => expect(written()).toHaveLength(3));
  const [made] = written()[2]?.made ?? [];
  expect([made?.content.title, made?.content.parameters.map((p) => p.name), made?.content.phrases[0]?.values]).toEqual(['The ledger holds … m³', ['value'], made?.content.parameters.map((p) => p.id)]);
});
