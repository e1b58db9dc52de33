/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_FEATURE, textOf, withNumbers, withText, type FeatureContent } from '@caderno/core/scenarios';
import { EditorView } from '@codemirror/view';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, standInProject } from '../../test/standInProject.ts';
import { ScenariosChapter } from './ScenariosChapter.tsx';

afterEach(cleanup);

let [made, projects] = [0, 0];
const feature = (path: string, text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path }, text, () => `i${(made += 1)}`), null);
const heads = [
  featureHead(1, { title: 'Bills', path: 'bills/bill.feature', version: 4 }),
  featureHead(2, { title: 'Meters', path: 'meter.feature', version: 7 }),
  featureHead(3, { title: 'Contas', path: 'contas.feature' }),
  featureHead(4, { title: 'Old', path: 'bills/bill-copy.feature' }),
];
const contents: Readonly<Record<string, FeatureContent>> = {
  'F-1': feature('bills/bill.feature', '@bill\nFeature: Bills\n  Background:\n    Given a member\n\n  Scenario: one\n    When 1\n\n  Scenario: two\n    When 2\n'),
  'F-2': feature('meter.feature', 'Feature: Meters\n  Scenario: read\n    When it is read\n'),
  'F-3': feature('contas.feature', '# language: pt\nFuncionalidade: Contas\n'),
};

function open() {
  const server = standInProject(heads, [], {
    readArtefact: ({ params }) => ({ kind: 'feature', summary: heads.find((h) => h.id === params.id) ?? featureHead(1), content: contents[params.id as string] ?? EMPTY_FEATURE, draft: null }),
    readPhrases: () => ({ phrases: [], alike: [] }),
    writeArtefacts: () => ({ change: null, made: [] }),
    createArtefact: ({ body }) => ({ kind: 'feature', summary: featureHead(5), content: (body as { content: FeatureContent }).content, draft: null }),
  });
  const project = `m${(projects += 1)}`;
  onThePage(<ScenariosChapter />, { project }, `/${project}/scenarios/F-1`, `/${project}/scenarios/:feature?`);
  return server;
}
async function atScenario(name: string): Promise<void> {
  const view = EditorView.findFromDOM(await screen.findByLabelText('Text of the feature'));
  await waitFor(() => expect(view?.state.doc.toString()).toContain(name));
  view?.dispatch({ selection: { anchor: view.state.doc.toString().indexOf(name) } });
}
async function pick(words: string): Promise<void> {
  const box = screen.getByRole('combobox', { name: 'The feature it goes to' });
  fireEvent.change(box, { target: { value: words } });
  await screen.findByRole('option', { name: new RegExp(words) });
  fireEvent.keyDown(box, { key: 'ArrowDown' });
  fireEvent.keyDown(box, { key: 'Enter' });
}

test('a scenario goes into another feature, both saved at once, after one saw what stays behind', async () => {
  const server = open();
  await atScenario('one');
  fireEvent.click(await screen.findByRole('button', { name: 'Move to another feature' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Move “one”' }));
  await pick('Meters');
  expect((await dialog.findByText(/What stands above it stays here/)).textContent).toBe('What stands above it stays here: @bill, Given a member.');
  fireEvent.click(dialog.getByRole('button', { name: 'Move it' }));
  await waitFor(() => expect(server.calls('writeArtefacts')).toHaveLength(1));
  const { changed } = server.calls('writeArtefacts')[0]?.body as { changed: { id: string; version: number; content: FeatureContent }[] };
  expect(changed.map((c) => [c.id, c.version, textOf(c.content)])).toEqual([
    ['F-1', 4, '@bill\nFeature: Bills\n  Background:\n    Given a member\n\n  Scenario: two\n    When 2\n'],
    ['F-2', 7, 'Feature: Meters\n  Scenario: read\n    When it is read\n\n  Scenario: one\n    When 1\n'],
  ]);
});

test('not into a feature of another language', async () => {
  open();
  await atScenario('two');
  fireEvent.click(await screen.findByRole('button', { name: 'Move to another feature' }));
  await pick('Contas');
  expect(await screen.findByText(/written in different languages/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Move it' }).disabled).toBe(true);
});

test('a clone is the same text under a name and a path of its own that none has', async () => {
  const server = open();
  await atScenario('one');
  fireEvent.click(screen.getByRole('button', { name: /^More/ }));
  fireEvent.click(await screen.findByRole('button', { name: 'Clone' }));
  await waitFor(() => expect(server.calls('createArtefact')).toHaveLength(1));
  const { content } = server.calls('createArtefact')[0]?.body as { content: FeatureContent };
  expect([content.path, content.title, textOf(content)]).toEqual(['bills/bill-copy-2.feature', 'Bills (copy)', textOf(contents['F-1'] ?? EMPTY_FEATURE).replace('Feature: Bills', 'Feature: Bills (copy)')]);
});
