/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_FEATURE, textOf, withNumbers, withText, type FeatureContent } from '@caderno/core/scenarios';
import { EditorView } from '@codemirror/view';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../../test/onThePage.tsx';
import { featureHead, standInProject } from '../../../test/standInProject.ts';
import { ScenariosChapter } from '../ScenariosChapter.tsx';
import { TwicePage } from './TwicePage.tsx';

afterEach(cleanup);

let [made, projects] = [0, 0];
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, () => `i${(made += 1)}`), null);
const scenario = (name: string, ...steps: string[]) => `  Scenario: ${name}\n${steps.map((s) => `    ${s}\n`).join('')}\n`;
const RECEIPTS = `Feature: Receipts\n\n${scenario('61 days', 'Given a member', 'Given a receipt of 61 days', 'Then it is refused')}${scenario('90 days', 'Given a member', 'Given a receipt of 90 days', 'Then it is refused')}${scenario('other', 'Given a member', 'When it rains')}`;
const OTHER = `Feature: Other\n\n${scenario('a', 'Given a member', 'Given a receipt of 7 days', 'Then it is granted')}`;

function open(element: React.ReactNode, path: string, route: string) {
  const contents = new Map([['F-1', feature(RECEIPTS)], ['F-2', feature(OTHER)]]);
  const listed = (name: string, number: number) => ({ number, name, tags: [], steps: 3, instances: 1 });
  const heads = [featureHead(1, { title: 'Receipts', scenarios: [listed('61 days', 1), listed('90 days', 2), listed('other', 3)] }), featureHead(2, { title: 'Other', scenarios: [listed('a', 1)] })];
  const server = standInProject(heads, [], {
    readArtefact: ({ params }) => ({ kind: 'feature', summary: heads[params.id === 'F-1' ? 0 : 1] ?? featureHead(1), content: contents.get(params.id as string) ?? EMPTY_FEATURE, draft: null }),
    readPhrases: () => ({ phrases: [], alike: [] }),
    readWrittenTwice: () => ({ same: [[{ feature: 'F-1', scenario: 1 }, { feature: 'F-1', scenario: 2 }, { feature: 'F-2', scenario: 1 }]], alike: [{ first: { feature: 'F-1', scenario: 1 }, second: { feature: 'F-2', scenario: 1 }, likeness: 2 / 3 }] }),
    saveArtefact: () => new Promise(() => undefined),
  });
  const project = `t${(projects += 1)}`;
  onThePage(element, { project }, `/${project}${path}`, `/${project}${route}`);
  return server;
}
const text = (): string => EditorView.findFromDOM(screen.getByLabelText('Text of the feature'))?.state.doc.toString() ?? '';

test('scenarios that differ only in values are made one outline, with names of one’s own, after one saw it', async () => {
  const server = open(<ScenariosChapter />, '/scenarios/F-1', '/scenarios/:feature?');
  const note = within(await screen.findByRole('complementary'));
  await note.findByText(/Scenarios 1 and 2 differ only in values/);
  fireEvent.click(note.getByRole('button', { name: 'make one outline' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'One outline of 2 scenarios' }));
  const preview = () => dialog.getByLabelText('What the file would say').textContent;
  expect(preview()).toContain('Scenario Outline: <receipt> days');
  const column = dialog.getByLabelText('Name of column 1');
  fireEvent.change(column, { target: { value: 'a|b' } });
  expect(dialog.getByRole('status').textContent).toMatch(/Each column needs a name/);
  expect(dialog.getByRole<HTMLButtonElement>('button', { name: 'Make one outline' }).disabled).toBe(true);
  fireEvent.change(column, { target: { value: 'age' } });
  expect(preview()).toContain('Scenario Outline: <age> days');
  fireEvent.click(dialog.getByRole('button', { name: 'Make one outline' }));
  await waitFor(() => expect(text()).toContain('Scenario Outline: <age> days\n    Given a member\n    Given a receipt of <age> days\n    Then it is refused\n\n    Examples:\n      | age |\n      |  61 |\n      |  90 |\n'));
  expect(text()).toContain('Scenario: other');
  await waitFor(() => expect(screen.queryByText(/differ only in values/)).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Save v2' }));
  await waitFor(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  const { content } = server.calls('saveArtefact')[0]?.body as { content: FeatureContent };
  expect([textOf(content), content.parts.map((p) => p.number)]).toEqual([text(), [0, 1, 3]]);
});

test('what all begin with is made their background', async () => {
  open(<ScenariosChapter />, '/scenarios/F-1', '/scenarios/:feature?');
  await screen.findByText(/All 3 begin with “a member”/);
  fireEvent.click(screen.getByRole('button', { name: 'make it their background' }));
  await waitFor(() => expect(text().startsWith('Feature: Receipts\n\n  Background:\n    Given a member\n\n  Scenario: 61 days\n    Given a receipt')).toBe(true));
  await waitFor(() => expect(screen.queryByText(/begin with/)).toBeNull());
});

test('the page tells groups over all features, leads to the outline where several are in one, and compares pairs', async () => {
  open(<TwicePage />, '/scenarios-twice', '/scenarios-twice');
  const same = within(await screen.findByRole('region', { name: 'The same but for values' }));
  await waitFor(() => expect(same.getAllByRole('link').map((a) => a.textContent)).toEqual(['F-1/1 61 days Receipts', 'F-1/2 90 days Receipts', 'F-2/1 a Other', 'Make one outline of the 2 in F-1']));
  expect(same.getByRole('link', { name: /Make one outline of/ }).getAttribute('href')).toMatch(/\/scenarios\/F-1\?outline=1,2#1$/);
  fireEvent.click(screen.getByRole('button', { name: 'Compare F-1/1 and F-2/1' }));
  const table = within(await screen.findByRole('table', { name: 'F-1/1 beside F-2/1' }));
  const rows = table.getAllByRole('row').map((row) => within(row).getAllByRole('cell').map((c) => c.textContent));
  expect(rows.slice(0, 2)).toEqual([['Givena member', 'Givena member'], ['Givena receipt of 61 days', 'Givena receipt of 7 days']]);
  expect(rows.slice(2).flat().filter((t) => t !== '').sort()).toEqual(['Thenit is granted (only here)', 'Thenit is refused (only here)']);
});

test('an address that asks for an outline opens it; scenarios that changed meanwhile are told why not', async () => {
  open(<ScenariosChapter />, '/scenarios/F-1?outline=1,3', '/scenarios/:feature?');
  const dialog = within(await screen.findByRole('dialog', { name: 'One outline of 2 scenarios' }));
  expect(dialog.getByText(/Their steps say different things by now/)).toBeTruthy();
  fireEvent.click(dialog.getByRole('button', { name: 'Close' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});
