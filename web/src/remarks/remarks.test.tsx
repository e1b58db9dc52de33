/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, plainStep, stepId } from '@caderno/core/cases';
import { WHOLE, remarkId, type Remark, type RemarkThread } from '@caderno/core/remarks';
import { EditorState } from '@codemirror/state';
import { CompletionContext } from '@codemirror/autocomplete';
import { EditorView } from '@codemirror/view';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { Refusing, StandInServer } from '../../test/standInServer.ts';
import { ParameterField } from '../steps/index.ts';
import { peopleOffered } from './RemarkField.tsx';
import { Remarks } from './Remarks.tsx';
import { questionTitle, subjectsOf } from './asQuestion.ts';

afterEach(cleanup);

const CONTENT = { ...EMPTY_CASE, title: 'Refused', steps: [plainStep(stepId('s1'), 'Open the form'), plainStep(stepId('s2'), 'Enter 120 and confirm', 'It is refused')] };
const NO_PARAMETERS = { parameters: [], values: null, constants: new Map(), onCreate: () => undefined };
let made = 0;
const someId = () => remarkId(`00000000-0000-4000-8000-${String((made += 1)).padStart(12, '0')}`);
const said = (text: string, part: Partial<Remark> = {}): Remark => ({ id: someId(), author: someId(), name: 'Rui M.', text, at: '2026-06-01T09:00:00.000Z', editedAt: null, earlier: [], takenBackAt: null, offer: null, ...part });
const thread = (text: string, part: Partial<RemarkThread> = {}): RemarkThread => ({ id: someId(), place: WHOLE, said: '', version: 1, settled: null, remarks: [said(text)], ...part });
const on = (path: string, quote?: string) => ({ path, words: quote === undefined ? null : { quote, start: 0, before: '', after: '' } });

/** A server that keeps what is said. */
function page(threads: RemarkThread[], refuses = { once: false }, rights: Partial<Parameters<typeof onThePage>[1] & object> = {}) {
  const put = (change: (t: RemarkThread) => RemarkThread) => (threads = threads.map(change));
  const server = new StandInServer({
    listRemarks: () => threads,
    listMembers: () => [{ id: PERSON.id, name: PERSON.name, email: 'a@b.example', role: 'analyst', sees: null }],
    beginThread: ({ body }) => {
      if (refuses.once) throw ((refuses.once = false), new Refusing({ code: 'server_error', request: 'x' } as never));
      return (threads = [...threads, thread(body.text, { id: body.remark, place: body.place, said: body.said, remarks: [said(body.text, { id: body.remark, author: PERSON.id, name: PERSON.name, offer: body.offer === undefined ? null : { text: body.offer, taken: null } })] })]);
    },
    answerRemark: ({ params, body }) => put((t) => (t.id === params.remark ? { ...t, settled: null, remarks: [...t.remarks, said(body.text, { id: body.remark, author: PERSON.id, name: PERSON.name })] } : t)),
    rewordRemark: ({ params, body }) => put((t) => ({ ...t, remarks: t.remarks.map((r) => (r.id === params.remark ? { ...r, text: body.text, editedAt: r.at, earlier: [...r.earlier, { text: r.text, until: r.at }] } : r)) })),
    takeBackRemark: ({ params }) => put((t) => ({ ...t, remarks: t.remarks.map((r) => (r.id === params.remark ? { ...r, text: '', takenBackAt: r.at } : r)) })),
    takeOffer: ({ params, body }) => put((t) => ({ ...t, settled: { name: PERSON.name, at: '2026-06-02T09:00:00.000Z' }, remarks: t.remarks.map((r) => (r.id === params.remark && r.offer !== null ? { ...r, offer: { ...r.offer, taken: { name: PERSON.name, at: '2026-06-02T09:00:00.000Z', version: body.version + 1 } } } : r)) })),
    settleThread: ({ params, body }) => put((t) => (t.id === params.remark ? { ...t, settled: body.settled ? { name: PERSON.name, at: '2026-06-02T09:00:00.000Z' } : null } : t)),
  });
  onThePage(
    <>
      <div data-place="steps/s1/action">
        <ParameterField label="Action of step 1" value="Open the form" onChange={() => undefined} readOnly={false} context={NO_PARAMETERS} />
      </div>
      <div data-place="steps/s2/action">
        <textarea aria-label="Action of step 2" defaultValue="Enter 120 and confirm" />
      </div>
      <Remarks id="C-1" version={3} content={CONTENT} />
    </>,
    rights,
  );
  return server;
}

const field = async (label: string): Promise<EditorView> => {
  const view = EditorView.findFromDOM(await screen.findByLabelText(label));
  if (view === null) throw new Error(`There is a field: expected '${label}'`);
  return view;
};
const write = (view: EditorView, text: string): void => act(() => view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } }));
const key = (view: EditorView, name: string, ctrlKey = false): boolean => fireEvent.keyDown(view.contentDOM, { key: name, ctrlKey });
const closed = (label: string) => waitFor(() => expect(screen.queryByLabelText(label)).toBeNull());
const list = () => screen.findByRole('list', { name: 'Remarks on C-1' });

test('of the project as it was nobody talks', () => {
  const server = page([thread('Why 120?')], { once: false }, { isPast: true });
  expect([screen.queryByRole('list', { name: 'Remarks on C-1' }), screen.queryByRole('button', { name: /remark/i })]).toEqual([null, null]);
  fireEvent.keyDown(screen.getByLabelText('Action of step 2'), { key: 'r', code: 'KeyR', altKey: true });
  expect([screen.queryByRole('textbox', { name: /remark/i }), server.calls('listRemarks')]).toEqual([null, []]);
});

test('the name of a place leads into it: also into a text that becomes an editor only once one is there', async () => {
  page([thread('Why 120?', { place: on('steps/s1/action') }), thread('And when?', { place: on('steps/s2/action') })]);
  const said = await list();
  fireEvent.click(await within(said).findByRole('button', { name: 'Step 1, action' }));
  expect(EditorView.findFromDOM(screen.getByLabelText('Action of step 1'))?.hasFocus).toBe(true);
  fireEvent.click(within(said).getByRole('button', { name: 'Step 2, action' }));
  expect(screen.getByLabelText('Action of step 2')).toHaveProperty('value', 'Enter 120 and confirm');
  expect(document.activeElement).toBe(screen.getByLabelText('Action of step 2'));
});

test('threads stand in the order of their places, tell what is gone, and fold what is settled', async () => {
  page([thread('last', { place: on('steps/s9'), said: 'Pay' }), thread('second', { place: on('steps/s2/action', 'Enter 7') , said: 'Enter 7' }), thread('first'), thread('done', { settled: { name: 'Rui M.', at: '2026-06-02T09:00:00.000Z' } }), thread('none', { remarks: [said('', { takenBackAt: '2026-06-02T09:00:00.000Z' })] })]);
  await screen.findByText('first');
  const lines = within(await list()).getAllByRole('listitem').map((l) => l.textContent ?? '');
  expect(lines.map((l) => /first|second|last/.exec(l)?.[0])).toEqual(['first', 'second', 'last']);
  expect([lines[1], lines[2]]).toEqual([expect.stringContaining('Step 2, action Enter 7 the words are gone'), expect.stringContaining('It was on something that is gone: Pay')]);
  expect(screen.queryByText('done')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /1 thread settled/ }));
  expect(screen.getByText('done')).toBeTruthy();
});

test('a remark is on the words one marked, kept in its field when it could not be sent, and then said once', async () => {
  const refuses = { once: true };
  const server = page([], refuses);
  const area = await screen.findByLabelText<HTMLTextAreaElement>('Action of step 2');
  act(() => {
    area.focus();
    area.setSelectionRange(6, 9);
  });
  fireEvent.keyDown(area, { key: 'r', code: 'KeyR', altKey: true });
  const view = await field('Remark on C-1');
  expect(screen.getByText('“120”')).toBeTruthy();
  write(view, '  ');
  key(view, 'Enter', true);
  write(view, 'Which value?');
  key(view, 'Enter', true);
  await waitFor(() => expect(server.calls('beginThread')).toHaveLength(1));
  await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remark' }).disabled).toBe(false));
  expect(view.state.doc.toString()).toBe('Which value?');
  fireEvent.click(screen.getByRole('button', { name: 'Remark' }));
  await closed('Remark on C-1');
  expect(screen.getByText('Which value?')).toBeTruthy();
  const [first, second] = server.calls('beginThread').map((c) => c.body);
  expect(second).toEqual(first);
  expect(first).toMatchObject({ place: { path: 'steps/s2/action', words: { quote: '120', start: 6 } }, said: '120', version: 3, text: 'Which value?' });
});

test('one answers, settles and opens again; one’s own is edited and taken back', async () => {
  const server = page([thread('Why?')], undefined, { canLead: false });
  fireEvent.click(await screen.findByRole('button', { name: 'answer' }));
  const answer = await field('Your answer');
  write(answer, 'Because.');
  key(answer, 'Enter', true);
  await closed('Your answer');
  expect(screen.getByText('Because.')).toBeTruthy();
  expect(screen.getAllByRole('button', { name: 'Edit the remark' })).toHaveLength(1);
  fireEvent.click(screen.getByRole('button', { name: 'Edit the remark' }));
  const own = await field('The remark');
  expect(own.state.doc.toString()).toBe('Because.');
  write(own, 'Because of the form.');
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  fireEvent.click(await screen.findByRole('button', { name: 'edited' }));
  expect(screen.getByRole('list', { name: 'What it said before' }).textContent).toMatch(/^until .*Because\.$/);
  fireEvent.click(screen.getByRole('button', { name: 'Take the remark back' }));
  await screen.findByText(`${PERSON.name} took a remark back.`);
  fireEvent.click(screen.getByRole('button', { name: 'settled' }));
  fireEvent.click(await screen.findByRole('button', { name: /1 thread settled/ }));
  fireEvent.click(await screen.findByRole('button', { name: 'open again' }));
  await waitFor(() => expect(server.calls('settleThread').map((c) => c.body)).toEqual([{ settled: true }, { settled: false }]));
});

test('Escape leaves the field, and people are offered behind @ alone', async () => {
  page([]);
  fireEvent.click(await screen.findByRole('button', { name: 'Write one' }));
  key(await field('Remark on C-1'), 'Escape');
  await closed('Remark on C-1');
  const offered = (text: string) => peopleOffered(new CompletionContext(EditorState.create({ doc: text }), text.length, false), ['Rui M.', 'Rute A.', 'Inês V.'])?.options.map((o) => o.label) ?? [];
  expect([offered('ask @ru'), offered('@'), offered('@rui m'), offered('a@ru'), offered('ru'), offered('@zz')]).toEqual([['Rui M.', 'Rute A.'], ['Rui M.', 'Rute A.', 'Inês V.'], ['Rui M.'], [], [], []]);
});

test('a remark becomes a question in one step: what it is about and what was said go along, and the thread says so', async () => {
  const server = page([thread('**Which** one?\nThe last?', { place: on('steps/s2') })]);
  const asked: unknown[] = [];
  server.answers.createArtefact = ({ body }) => {
    asked.push(body);
    throw new Refusing({ code: 'project_busy', seconds: 1 });
  };
  fireEvent.click(await screen.findByRole('button', { name: 'make it a question' }));
  await waitFor(() => expect(asked).toMatchObject([{ kind: 'question', content: { title: 'Which one?', text: '**Which** one?\nThe last?', about: [] } }]));
  // What was refused says nothing in the thread.
  expect(server.calls('answerRemark')).toHaveLength(0);
  const content = { covers: [{ id: 'K-2' }, { id: 'K-5' }] } as never;
  expect(subjectsOf('C-1', content, { place: WHOLE, said: '' })).toEqual(['K-2', 'K-5'].map((id) => ({ kind: 'condition', id, items: [], holds: false })));
  expect(subjectsOf('R-3', {}, { place: on('text', 'a day'), said: 'a day' })).toEqual([{ kind: 'requirement', id: 'R-3', words: 'a day', holds: false }]);
  expect([subjectsOf('S-1', {}, { place: WHOLE, said: '' }), questionTitle('')]).toEqual([[], '']);
});

test('a change is offered at a text, shown against what stands there, and taken by who may change the design', async () => {
  const server = page([]);
  fireEvent.focusIn(screen.getByLabelText('Action of step 2'));
  fireEvent.click(await screen.findByRole('button', { name: 'Write one' }));
  await field('Remark on C-1');
  fireEvent.click(screen.getByRole('button', { name: 'offer a change' }));
  const otherwise = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Remark on C-1: it should say' });
  expect([otherwise.value, screen.getByRole<HTMLButtonElement>('button', { name: 'Remark' }).disabled]).toEqual(['Enter 120 and confirm', true]);
  fireEvent.change(otherwise, { target: { value: 'Enter 121 and confirm' } });
  fireEvent.click(screen.getByRole('button', { name: 'Remark' }));
  const thread = within(await list());
  expect([(await thread.findByText('120')).tagName, thread.getByText('121').tagName, thread.getByText('I offer a change.').tagName]).toEqual(['DEL', 'INS', 'SPAN']);
  fireEvent.click(thread.getByRole('button', { name: 'Take it' }));
  fireEvent.click(await screen.findByRole('button', { name: '1 thread settled' }));
  expect(await screen.findByText(/^Taken by .* as v4/)).toBeTruthy();
  expect(server.calls('takeOffer')).toEqual([expect.objectContaining({ body: { version: 3 } })]);
});

test('nothing is offered on all of it; what is offered to something that is gone, or says so already, is not taken; readers take nothing', async () => {
  const offers = (text: string, place: RemarkThread['place']) => thread(`On ${text}`, { place, remarks: [said(text, { offer: { text, taken: null } })] });
  page([offers('was here', on('steps/s9/action')), offers('Open the form', on('steps/s1/action')), offers('Close the form', on('steps/s1/action'))], { once: false }, { canEdit: false });
  expect((await screen.findByText('What it was for is gone.')).tagName).toBe('P');
  expect([screen.getAllByText('It says so already.').length, screen.queryByRole('button', { name: 'Take it' })]).toEqual([1, null]);
  fireEvent.click(screen.getByRole('button', { name: 'Write one' }));
  await field('Remark on C-1');
  expect(screen.queryByRole('button', { name: 'offer a change' })).toBeNull();
});
