/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { EMPTY_FEATURE, withNumbers, withText } from '@caderno/core/scenarios';
import { EditorView } from '@codemirror/view';
import { onThePage } from '../../test/onThePage.tsx';
import { conditionHead, featureHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { ScenariosChapter } from './ScenariosChapter.tsx';

afterEach(cleanup);

const TEXT = '@bill\r\nFeature: Bill\r\n  Scenario: one\r\n    Given a meter\r\n    wrong\r\n\r\n  Scenario Outline: two\r\n    When <n> is read\r\n    Examples:\r\n      | n |\r\n      | 1 |\r\n      | 2 |\r\n';
let [made, projects] = [0, 0];
const CONTENT = withNumbers(withText({ ...EMPTY_FEATURE, path: 'bills/bill.feature' }, TEXT, () => `i${(made += 1)}`), null);
const scenario = (number: number, name: string, tags: string[] = [], instances = 1) => ({ number, name, tags: ['@bill', ...tags], steps: 2, instances });
const heads = [
  featureHead(1, { title: 'Bill', path: 'bills/bill.feature', scenarios: [scenario(1, 'one', ['@smoke']), scenario(2, 'two', ['@slow'], 2)], problems: 1, requirements: ['R-1'] }),
  featureHead(2, { title: 'Meter', path: 'meter.feature', scenarios: [scenario(1, '', ['@smoke', '@slow'])], state: 'agreed' }),
  conditionHead(7, { title: 'Reading value', version: 4 }),
  requirementHead(1, { title: 'Billing', version: 3, meaningSince: 3 }),
];

/** Drafts of one test are kept where the next would find them: each has a project of its own. */
function chapter(path: string, answers: Parameters<typeof standInProject>[2] = {}, known = heads) {
  const server = standInProject(known, [], {
    readArtefact: () => ({ kind: 'feature', summary: heads[0] as ReturnType<typeof featureHead>, content: { ...CONTENT, requirements: [{ id: 'R-1', seenVersion: 1, parts: [] }] }, draft: null }),
    readPhrases: () => ({ phrases: [], alike: [] }),
    ...answers,
  });
  const project = `p${(projects += 1)}`;
  onThePage(<ScenariosChapter />, { project }, `/${project}${path}`, `/${project}/scenarios/:feature?`);
  return server;
}
const features = () => within(screen.getByRole('list', { name: 'Features' })).getAllByRole('link').map((a) => a.textContent ?? '').filter((text) => /^F-\d/.test(text));
const scenarios = (id: string) => within(screen.getByRole('list', { name: `Scenarios of ${id}` })).getAllByRole('listitem').map((li) => li.textContent);
const editor = (): EditorView => {
  const view = EditorView.findFromDOM(screen.getByLabelText('Text of the feature'));
  if (view === null) throw new Error('The text stands in an editor');
  return view;
};

test('features stand in their folders; a tag expression leaves the scenarios that have such tags', async () => {
  chapter('/scenarios');
  await waitFor(() => expect(features()).toEqual(['F-1Bill2 scenarios · 1 problem', 'F-2Meter1 scenario · agreed']));
  const ask = (tags: string) => fireEvent.change(screen.getByLabelText('Tags'), { target: { value: tags } });
  ask('@smoke and not @slow');
  await waitFor(() => expect(features()).toEqual(['F-1Bill1 of 2 scenarios · 1 problem']));
  expect(scenarios('F-1')).toEqual(['1one@smoke']);
  ask('@smoke and (');
  await screen.findByText('not finished');
  expect(features()).toHaveLength(2);
});

test('the project’s tag tells which are run by hand; they are counted with what they take, and asked for', async () => {
  const scenarioExecution = { tag: '@slow', marks: 'byHand', minutes: { byHand: 60, automated: null } } as const;
  chapter('/scenarios', { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, scenarioExecution } }) });
  const choices = () => within(screen.getByRole('group', { name: 'How they are run' })).getAllByRole('button').map((b) => b.textContent);
  await waitFor(() => expect(choices()).toEqual(['3 in all, 3\u00a0h', '2 by hand', '1 automated']));
  fireEvent.click(screen.getByRole('button', { name: '1 automated' }));
  await waitFor(() => expect(features()).toEqual(['F-1Bill1 of 2 scenarios · 1 problem']));
  expect(scenarios('F-1')).toEqual(['1one@smoke']);
  fireEvent.change(screen.getByLabelText('Tags'), { target: { value: '@slow' } });
  await waitFor(() => expect(choices()).toEqual(['2 in all', '2 by hand', '0 automated']));
});

test('a feature of many lists the first of its scenarios, the others when one asks', async () => {
  const many = featureHead(1, { title: 'Bill', path: 'bill.feature', scenarios: Array.from({ length: 120 }, (_, i) => scenario(i + 1, `n${i + 1}`)) });
  chapter('/scenarios/F-1', {}, [many, ...heads.slice(1)]);
  await waitFor(() => expect(screen.queryByRole('list', { name: 'Scenarios of F-1' })?.children).toHaveLength(51));
  fireEvent.click(screen.getByRole('button', { name: '70 more' }));
  expect(scenarios('F-1')).toHaveLength(120);
});

test('the text is shown without what ends its lines, saved with it; problems are told by their line', async () => {
  const server = chapter('/scenarios/F-1', { saveArtefact: () => new Promise(() => undefined) });
  await waitFor(() => expect(editor().state.doc.toString()).toBe(TEXT.replaceAll('\r', '')));
  expect(scenarios('F-1')).toEqual(['1one@smoke', '2two@slow× 2']);
  expect(within(screen.getByRole('complementary')).getByText(/“wrong” cannot stand here/)).toBeTruthy();
  const at = editor().state.doc.toString().indexOf('wrong');
  editor().dispatch({ changes: { from: at, to: at + 5, insert: 'Then it is right' } });
  await waitFor(() => expect(screen.queryByText(/cannot stand here/)).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Save v2' }));
  await waitFor(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  const sent = server.calls('saveArtefact')[0]?.body as { content: typeof CONTENT };
  expect(sent.content.parts.flatMap((p) => p.lines.map((l) => l.text)).join('\n')).toBe(TEXT.replace('wrong', 'Then it is right'));
  expect(sent.content.parts.map((p) => [p.id, p.number])).toEqual(CONTENT.parts.map((p) => [p.id, p.number]));
});

test('the title is what the text says; as pages each scenario has its steps; a requirement that changed is told', async () => {
  chapter('/scenarios/F-1');
  await waitFor(() => expect(editor().state.doc.lines).toBe(13));
  fireEvent.change(screen.getByLabelText('Title of F-1'), { target: { value: 'Paying' } });
  await waitFor(() => expect(editor().state.doc.line(2).text).toBe('Feature: Paying'));
  expect(screen.getByText(/It changed since/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Pages' }));
  const two = within(await screen.findByRole('region', { name: 'two' }));
  expect(two.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['When<n> is read']);
  expect(within(two.getByRole('grid', { name: 'Examples 1' })).getAllByRole('row').slice(1).map((row) => row.textContent)).toEqual(['1', '2', 'next row']);
});

test('the scenario at the cursor is linked to a condition, and the link is kept with it', async () => {
  const server = chapter('/scenarios/F-1', { saveArtefact: () => new Promise(() => undefined) });
  await waitFor(() => expect(editor().state.doc.lines).toBe(13));
  expect(within(screen.getByRole('complementary')).getByText(/put the cursor into a scenario/)).toBeTruthy();
  editor().dispatch({ selection: { anchor: editor().state.doc.toString().indexOf('When') } });
  await screen.findByRole('heading', { name: 'Covers, F-1/2' });
  const box = screen.getByRole('combobox', { name: 'Link a condition' });
  fireEvent.change(box, { target: { value: 'reading' } });
  await screen.findByRole('option', { name: /K-7 Reading value/ });
  fireEvent.keyDown(box, { key: 'ArrowDown' });
  fireEvent.keyDown(box, { key: 'Enter' });
  await screen.findByRole('link', { name: /K-7/ });
  fireEvent.click(await screen.findByRole('button', { name: 'Save v2' }));
  await waitFor(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  const { content } = server.calls('saveArtefact')[0]?.body as { content: typeof CONTENT };
  expect(content.parts.map((p) => [p.number, p.covers.map((c) => [c.id, c.seenVersion])])).toEqual([[0, []], [1, []], [2, [['K-7', 4]]]]);
});

test('a requirement is linked to the scenario at the cursor alone, to more, and to the whole feature again', async () => {
  const server = chapter('/scenarios/F-1', { saveArtefact: () => new Promise(() => undefined) });
  await waitFor(() => expect(editor().state.doc.lines).toBe(13));
  const at = (words: string) => editor().dispatch({ selection: { anchor: editor().state.doc.toString().indexOf(words) } });
  const said = () => screen.queryByText(/^for scenarios? /, { selector: 'p' })?.textContent ?? null;
  expect(screen.queryByRole('button', { name: /^only for/ })).toBeNull();
  at('When');
  fireEvent.click(await screen.findByRole('button', { name: 'only for scenario 2' }));
  await waitFor(() => expect(said()).toBe('for scenario 2'));
  expect(screen.queryByRole('button', { name: 'not for scenario 2' })).toBeNull();
  at('wrong');
  fireEvent.click(await screen.findByRole('button', { name: 'for scenario 1 too' }));
  await waitFor(() => expect(said()).toBe('for scenarios 1, 2'));
  fireEvent.click(screen.getByRole('button', { name: 'not for scenario 1' }));
  await waitFor(() => expect(said()).toBe('for scenario 2'));
  expect(screen.queryByRole('button', { name: 'for the whole feature' })).toBeNull();
  at('When');
  fireEvent.click(await screen.findByRole('button', { name: 'for the whole feature' }));
  await waitFor(() => expect(said()).toBeNull());
  at('wrong');
  fireEvent.click(await screen.findByRole('button', { name: 'only for scenario 1' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Save v2' }));
  await waitFor(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  const { content } = server.calls('saveArtefact')[0]?.body as { content: typeof CONTENT };
  expect(content.requirements).toEqual([{ id: 'R-1', seenVersion: 1, parts: [CONTENT.parts.find((p) => p.number === 1)?.id] }]);
});
