/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { EMPTY_QUESTION, type QuestionContent } from '@caderno/core/basis';
import { artefactId } from '@caderno/core/artefacts';
import type { ArtefactOfKind } from '@caderno/contract';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { Refusing, StandInServer } from '../../test/standInServer.ts';
import { dropLocally, readLocally } from './localDraft.ts';
import { ArtefactHead } from './ArtefactHead.tsx';
import { useEditing } from './useEditing.ts';
import { useEditable, type EditableArtefact } from './useKeptHere.ts';

const ID = artefactId('question', 1);
const PLACE = { project: 'p', person: PERSON.id, of: ID };
const START: QuestionContent = { ...EMPTY_QUESTION, title: 'Who reads the meter?', text: 'At night' };

/** A question on a server: what is saved stands, drafts are kept one for all windows. */
class Question extends StandInServer {
  version = 1;
  content = START;
  draft: ArtefactOfKind<'question'>['draft'] = null;

  constructor() {
    super({
      readArtefact: () => this.artefact(),
      keepDraft: ({ body }) => {
        if (body.kind !== 'question') throw new Error('a question is kept');
        this.draft = { content: body.content, base: body.base, baseContent: START, at: '2026-01-02T00:00:00.000Z' };
        return { at: this.draft.at };
      },
      dropDraft: () => {
        this.draft = null;
        return this.artefact();
      },
      saveArtefact: ({ body, headers }) => {
        if (body.kind !== 'question') throw new Error('a question is saved');
        if (headers.get('if-match') !== `"${this.version}"`) throw new Refusing({ code: 'version_moved', id: ID, head: this.version, base: 1, author: 'Rui M.' });
        this.theirs(body.content);
        this.draft = null;
        return this.artefact();
      },
      readHeads: () => ({ revision: this.version, heads: [], next: null, suspectLinks: 0 }),
      readChanges: () => ({ kind: 'changes', since: 0, revision: this.version, heads: [], gone: [], touched: [], settings: false, suspectLinks: 0 }),
      readCoverageRows: () => ({ since: null, edition: 1, revision: 1, rows: [], gone: [] }),
    });
  }

  theirs(content: QuestionContent): void {
    this.version += 1;
    this.content = content;
  }

  artefact(): ArtefactOfKind<'question'> {
    const { title, status } = this.content;
    return { kind: 'question', summary: { kind: 'question', id: ID, title, status, state: 'draft', version: this.version, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {}, asked: '', about: [], answeredAt: '' }, content: this.content, draft: this.draft };
  }
}

function Page() {
  const { data } = useEditable('question', ID);
  return data === undefined ? <p>Reading</p> : <Form artefact={data} />;
}

function Form({ artefact }: { readonly artefact: EditableArtefact<'question'> }) {
  const editing = useEditing('question', artefact);
  const { text } = editing.content;
  return (
    <>
      <input aria-label="Text" value={text} onChange={(e) => editing.update((c) => ({ ...c, text: e.target.value }))} />
      <ArtefactHead summary={artefact.summary} state={null} editing={editing} rareWords={['seldom']} rare={<p>what is rarely changed</p>} />
    </>
  );
}

let server: Question;
beforeEach(() => {
  server = new Question();
});
afterEach(async () => {
  cleanup();
  await dropLocally(PLACE);
});

const title = (): HTMLInputElement => screen.getByLabelText(`Title of ${ID}`);
const text = (): HTMLInputElement => screen.getByLabelText('Text');
const status = (): string => screen.getByRole('status').textContent ?? '';
async function open(context = {}) {
  const page = onThePage(<Page />, context);
  await screen.findByLabelText(`Title of ${ID}`);
  return page;
}
const type = (field: HTMLInputElement, value: string): void => void fireEvent.change(field, { target: { value } });
const fromMenu = async (name: string): Promise<void> => {
  fireEvent.click(screen.getByRole('button', { name: 'Other ways to end this edit' }));
  fireEvent.click(await screen.findByRole('menuitem', { name }));
};
const save = (): void => void fireEvent.keyDown(window, { key: 's', ctrlKey: true });
const until = (condition: () => void): Promise<void> => waitFor(condition, { timeout: 8_000 });

test('what is typed is kept in this browser at once, as a draft after a pause, and the copy goes when the server has that very text', async () => {
  await open();
  type(title(), 'Who reads it?');
  expect(status()).toBe('v1 · typing …');
  await until(() => expect(server.calls('keepDraft')).toHaveLength(1));
  await until(() => expect(status()).toBe('v1 · kept as draft'));
  expect(server.draft?.content.title).toBe('Who reads it?');
  await act(async () => expect(await readLocally(PLACE)).toBeNull());
  type(title(), 'Who reads the water meter?');
  await until(() => expect(server.calls('keepDraft')).toHaveLength(2));
  const [first = 0, second = 0] = server.calls('keepDraft').map((c) => (c.body as { sequence: number }).sequence);
  expect(second).toBeGreaterThan(first);
});

test('while the server is away the text is here, survives the page, and goes out when the server is back', async () => {
  const page = await open();
  server.away = true;
  type(title(), 'Typed without a server');
  await until(() => expect(status()).toContain('kept in this browser'));
  await act(async () => expect((await readLocally(PLACE))?.content).toMatchObject({ title: 'Typed without a server' }));
  page.unmount();
  server.away = false;
  await open();
  expect(title().value).toBe('Typed without a server');
  await until(() => expect(server.draft?.content.title).toBe('Typed without a server'));
});

test('a page that is left sends what it holds without waiting', async () => {
  const page = await open();
  type(title(), 'Left at once');
  page.unmount();
  await until(() => expect(server.draft?.content.title).toBe('Left at once'));
});

test('saved is what was sent; what is typed meanwhile stays and is kept as a draft of the new version', async () => {
  let answer = (): void => undefined;
  const kept = server.answers.saveArtefact!;
  server.answers.saveArtefact = async (asked) => {
    await new Promise<void>((resolve) => (answer = resolve));
    return kept(asked);
  };
  await open();
  type(title(), 'Sent');
  save();
  await until(() => expect(server.calls('saveArtefact')).toHaveLength(1));
  type(title(), 'Sent, and more');
  act(() => answer());
  await until(() => expect(status()).toMatch(/^v2 · /));
  expect([server.content.title, title().value]).toEqual(['Sent', 'Sent, and more']);
  await until(() => expect(server.draft).toMatchObject({ base: 2, content: { title: 'Sent, and more' } }));
});

test('a save of somebody who was quicker is refused, taken in, and the next save goes through; the same place is shown from both sides', async () => {
  const { client } = await open();
  server.theirs({ ...START, text: 'By day' });
  type(title(), 'Mine');
  save();
  await until(() => expect(text().value).toBe('By day'));
  expect(title().value).toBe('Mine');
  save();
  await until(() => expect(server.content).toMatchObject({ title: 'Mine', text: 'By day' }));

  server.theirs({ ...server.content, text: 'Theirs' });
  type(text(), 'Also mine');
  await act(() => client.invalidateQueries());
  expect((await screen.findByRole('alert')).textContent).toContain('Rui M. saved v4 meanwhile and changed the same place. Your text is kept.');
  expect(text().value).toBe('Also mine');
});

test('a save that finds nobody is sent again as the same command', async () => {
  await open();
  type(title(), 'In the end');
  server.away = true;
  save();
  await until(() => expect(server.calls('saveArtefact').length).toBeGreaterThan(0));
  server.away = false;
  await until(() => expect(server.content.title).toBe('In the end'));
  expect(new Set(server.calls('saveArtefact').map((c) => c.headers.get('command-id'))).size).toBe(1);
});

test('typed back, the draft is dropped; discarded, undo brings the text back', async () => {
  await open();
  type(title(), 'Changed');
  await until(() => expect(server.draft).not.toBeNull());
  type(title(), START.title);
  await until(() => expect(server.draft).toBeNull());
  expect(status()).toContain('saved');
  type(title(), 'Again');
  await until(() => expect(status()).toBe('v1 · kept as draft'));
  await fromMenu('Discard what is not saved');
  await until(() => expect(title().value).toBe(START.title));
  fireEvent.keyDown(window, { key: 'z', ctrlKey: true });
  await until(() => expect(title().value).toBe('Again'));
});

test('who may only read changes nothing', async () => {
  await open({ canEdit: false });
  type(title(), 'Changed');
  save();
  expect([title().value, server.calls('saveArtefact')]).toEqual([START.title, []]);
});

test('a note goes with the version; what is rarely changed waits behind one word', async () => {
  await open();
  expect(screen.queryByRole('button', { name: 'Save v2' })).toBeNull();
  type(title(), 'Who reads it?');
  await fromMenu('Save with a note');
  const note = screen.getByLabelText('Note on this version');
  expect(document.activeElement).toBe(note);
  type(note as HTMLInputElement, 'as the office asks it');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await until(() => expect(server.calls('saveArtefact').map((c) => (c.body as { note: string }).note)).toEqual(['as the office asks it']));
  await until(() => expect(screen.queryByLabelText('Note on this version')).toBeNull());

  const more = screen.getByRole('button', { name: /^More/ });
  expect([more.textContent, more.getAttribute('aria-expanded'), screen.queryByText('what is rarely changed')]).toEqual(['More· seldom', 'false', null]);
  fireEvent.click(more);
  expect(screen.getByRole('button', { name: 'Less' }).getAttribute('aria-expanded')).toBe('true');
  expect(screen.getByText('what is rarely changed')).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Versions' }).getAttribute('href')).toContain(ID);
});
