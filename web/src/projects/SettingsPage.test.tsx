/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, expect, test } from '@jest/globals';
import { DEFAULT_SETTINGS, type ProjectSettings } from '@caderno/contract';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { createStore, get } from 'idb-keyval';
import { SECRET_MASK } from '@caderno/core/shared';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { Refusing, StandInServer } from '../../test/standInServer.ts';
import { SettingsPage } from './SettingsPage.tsx';
import { withoutTypedSecrets } from './useEditedSettings.ts';

afterEach(cleanup);

class Settings extends StandInServer {
  version = 1;
  settings: ProjectSettings = DEFAULT_SETTINGS;

  constructor() {
    super({
      readSettings: () => ({ version: this.version, settings: this.settings }),
      saveSettings: ({ body, headers }) => {
        if (headers.get('if-match') !== `"${this.version}"`) throw new Refusing({ code: 'settings_moved', paths: ['depths'] });
        this.save(body);
        return { version: this.version, settings: this.settings };
      },
      readTracker: () => ({ connected: false, checkedAt: null, failure: null, newStories: 0, changedStories: 0 }),
      readHeads: () => ({ revision: 1, heads: [], next: null, suspectLinks: 0 }),
      readChanges: () => ({ kind: 'changes', since: 1, revision: 1, heads: [], gone: [], touched: [], settings: true, suspectLinks: 0 }),
      readCoverageRows: () => ({ since: null, edition: 1, revision: 1, rows: [], gone: [] }),
    });
  }

  save(settings: ProjectSettings): void {
    this.version += 1;
    this.settings = settings;
  }
}

const most = (): HTMLInputElement => screen.getByLabelText('Most coverage items of a condition');
const depths = (): HTMLInputElement => screen.getByLabelText('Depths, commas between');

test('what one changes stays when somebody else saves, both end up saved, and what is typed outlives the page', async () => {
  const server = new Settings();
  const { client, unmount } = onThePage(<SettingsPage />);
  await screen.findByText('Settings of the project');
  fireEvent.change(most(), { target: { value: '4000' } });
  server.save({ ...server.settings, depths: ['smoke', 'full'] });
  await act(() => client.invalidateQueries());
  await waitFor(() => expect(depths().value).toBe('smoke, full'));
  expect(most().value).toBe('4000');
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('kept as draft'));
  unmount();

  onThePage(<SettingsPage />);
  await waitFor(() => expect(most().value).toBe('4000'));
  fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  await waitFor(() => expect(server.settings).toMatchObject({ mostItems: 4000, depths: ['smoke', 'full'] }));
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Save' })).toBeNull());
});

test('a secret that is typed is sent and never kept in the browser; one that is stored stays as it was', async () => {
  const server = new Settings();
  const constant = { id: 'pin', name: 'pin', value: SECRET_MASK, secret: true, description: '', others: {} };
  server.settings = { ...DEFAULT_SETTINGS, constants: [constant] };
  onThePage(<SettingsPage />);
  const value = await screen.findByLabelText<HTMLInputElement>(/pin/, { selector: 'input[type="password"]' });
  fireEvent.change(value, { target: { value: '4711 in the clear' } });
  fireEvent.change(most(), { target: { value: '4100' } });
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('kept as draft'));
  const kept = await get<{ content: unknown }>(`${PERSON.id}/p/settings`, createStore('caderno', 'drafts'));
  expect(kept?.content).toMatchObject({ mostItems: 4100, constants: [{ ...constant, value: SECRET_MASK }] });
  expect(JSON.stringify(kept)).not.toContain('4711');
  fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  await waitFor(() => expect(server.settings.constants[0]?.value).toBe('4711 in the clear'));
  expect(withoutTypedSecrets({ ...DEFAULT_SETTINGS, constants: [{ ...constant, value: 'new', others: { k: 'o' } }] }, DEFAULT_SETTINGS).constants).toEqual([{ ...constant, value: '', others: { k: '' } }]);
});

test('where both changed the same, both are shown, and the chosen one is saved', async () => {
  const server = new Settings();
  const { client } = onThePage(<SettingsPage />);
  await screen.findByText('Settings of the project');
  fireEvent.change(most(), { target: { value: '4000' } });
  server.save({ ...server.settings, mostItems: 5000 });
  await act(() => client.invalidateQueries());
  fireEvent.click(await screen.findByRole('button', { name: 'Look at both and choose' }));
  fireEvent.click(await screen.findByRole('radio', { name: /Somebody’s/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Take these together' }));
  await waitFor(() => expect(most().value).toBe('5000'));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('the tag that tells how scenarios are run takes its sign by itself, and what can be no tag is not taken', async () => {
  const server = new Settings();
  onThePage(<SettingsPage />);
  const tag = await screen.findByLabelText<HTMLInputElement>('Tag');
  const write = (text: string): void => {
    fireEvent.change(tag, { target: { value: text } });
    fireEvent.blur(tag);
  };
  write('two words');
  expect(tag.value).toBe('@by-hand');
  write(' robot ');
  expect(tag.value).toBe('@robot');
  fireEvent.change(screen.getByLabelText('What the tag says'), { target: { value: 'automated' } });
  fireEvent.change(screen.getByLabelText('Minutes, run by hand'), { target: { value: '7.5' } });
  fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  await waitFor(() => expect(server.settings.scenarioExecution).toEqual({ tag: '@robot', marks: 'automated', minutes: { byHand: 7.5, automated: null } }));
});

test('a kind of values is made when it can be meant, tried on a step, renamed and taken away', async () => {
  const server = new Settings();
  onThePage(<SettingsPage />);
  const [name, pattern] = [await screen.findByLabelText('Another kind of values'), screen.getByLabelText('What its values look like')];
  const type = (into: HTMLElement, text: string): void => void fireEvent.change(into, { target: { value: text } });
  const add = (): HTMLButtonElement | undefined => within(name.closest('form') ?? document.body).getAllByRole<HTMLButtonElement>('button')[0];
  type(name, 'two words');
  expect([screen.getByText(/^One word/), add()?.disabled]).toEqual([expect.anything(), true]);
  type(name, 'season');
  type(pattern, '(');
  expect([screen.getByText(/^Words with/), add()?.disabled]).toEqual([expect.anything(), true]);
  type(pattern, ' wet|dry ');
  type(screen.getByLabelText('A step to try it on'), 'a dry and a wet month, never drying');
  expect(screen.getByText('its values: “dry”, “wet”')).toBeTruthy();
  fireEvent.submit(name.closest('form') ?? document.body);
  const listed = await screen.findByLabelText('Name of the kind season');
  type(listed, 'int');
  fireEvent.blur(listed);
  expect(screen.getByText(/^One word/)).toBeTruthy();
  type(listed, 'time_of_year');
  fireEvent.blur(listed);
  const save = (): boolean => fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  save();
  await waitFor(() => expect(server.settings.valueKinds).toEqual([{ id: expect.stringMatching(/^[0-9a-f]{8}$/), name: 'time_of_year', pattern: 'wet|dry' }]));
  fireEvent.click(await screen.findByLabelText(/^Remove time_of_year/));
  save();
  await waitFor(() => expect(server.settings.valueKinds).toEqual([]));
});

test('factors are named, their values typed or pasted from a column; a rule that cannot be read says so where it stands', async () => {
  const server = new Settings();
  onThePage(<SettingsPage />);
  await screen.findByText('Settings of the project');
  fireEvent.click(screen.getByRole('button', { name: 'add a factor' }));
  fireEvent.click(screen.getByRole('button', { name: 'add a factor' }));
  const field = (name: string | RegExp): HTMLElement => screen.getByRole('textbox', { name });
  fireEvent.change(field('Name of the factor factor 1'), { target: { value: 'device' } });
  fireEvent.change(field('Values of device'), { target: { value: 'computer\ntelephone\n\ncomputer' } });
  fireEvent.blur(field('Values of device'));
  expect((field('Values of device') as HTMLTextAreaElement).value).toBe('computer, telephone');
  // Two of one name, and one without, would be refused: they are marked before.
  fireEvent.change(field('Name of the factor factor 2'), { target: { value: 'device' } });
  expect(screen.getAllByRole('textbox', { name: 'Name of the factor device' }).map((f) => f.getAttribute('aria-invalid'))).toEqual(['true', 'true']);
  fireEvent.click(screen.getAllByRole('button', { name: 'Remove the factor device' })[1] as HTMLElement);
  fireEvent.change(field(/^what does not go together/), { target: { value: 'device = fax\nnot (device = telephone)' } });
  expect(screen.getByRole('alert').textContent).toBe('“device = fax”: “fax” is no value of device.');
  fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  await waitFor(() => expect(server.settings.environment).toMatchObject({ factors: [{ name: 'device', values: ['computer', 'telephone'] }], rules: 'device = fax\nnot (device = telephone)' }));
});

test('a constant has another value in all configurations that are alike, in one step; where they differ that is said', async () => {
  const server = new Settings();
  const of = (id: string, device: string) => ({ id, name: `At ${id}`, factors: [{ name: 'device', value: device }] });
  const constant = (name: string, more: object = {}) => ({ id: name, name, value: `${name} as usual`, secret: false, description: '', others: {}, ...more });
  server.save({ ...DEFAULT_SETTINGS, configurations: [of('a', 'telephone'), of('b', 'computer'), of('c', 'telephone')], constants: [constant('page', { others: { a: 'one', b: 'kept' } }), constant('key', { secret: true, value: SECRET_MASK, others: { a: SECRET_MASK, c: SECRET_MASK } })] });
  onThePage(<SettingsPage />);
  await screen.findByText('Settings of the project');
  fireEvent.click(screen.getByRole('button', { name: /^Values/ }));
  expect((await screen.findAllByRole('option')).map((o) => o.textContent)).toEqual(['usual ones', 'in At a', 'in At b', 'in At c', 'where device = telephone (2)']);
  fireEvent.click(screen.getByRole('option', { name: /^where/ }));
  const field = (name: string) => screen.getByLabelText<HTMLInputElement>(`Value of ${name} where device = telephone`);
  await waitFor(() => expect([field('page').value, field('page').placeholder, field('key').placeholder]).toEqual(['', 'not the same in all of them', `${SECRET_MASK} kept; type to replace it`]));
  fireEvent.change(field('page'), { target: { value: 'the small page' } });
  expect(field('page').value).toBe('the small page');
  fireEvent.keyDown(window, { key: 's', ctrlKey: true });
  await waitFor(() => expect(server.settings.constants[0]?.others).toEqual({ a: 'the small page', b: 'kept', c: 'the small page' }));
  fireEvent.change(field('page'), { target: { value: '' } });
  expect(field('page').placeholder).toBe('page as usual');
});
