/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '@caderno/core/cases';
import { EMPTY_FEATURE, keyOfExpression, withNumbers, withText } from '@caderno/core/scenarios';
import { EMPTY_SHARED } from '@caderno/core/shared';
import { EditorView } from '@codemirror/view';
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { caseHead } from '../../test/heads.ts';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, sharedHead, standInProject } from '../../test/standInProject.ts';
import { ReadSelection } from './ReadSelection.tsx';
import { ReadThrough } from './ReadThrough.tsx';

afterEach(cleanup);

const amount = { id: parameterId('a'), name: 'amount', type: 'text', default: '', description: '' } as const;
const CONTENT: CaseContent = {
  ...EMPTY_CASE, title: 'Pay at the counter', parameters: [amount],
  rows: [{ ...newRow(rowId('low'), 'low'), cells: { [amount.id]: '5' } }, { ...newRow(rowId('high'), 'high'), cells: { [amount.id]: '900' } }, newRow(rowId('none'), 'none')],
  steps: [plainStep(stepId('1'), 'pay <amount> coins', 'a receipt of <amount>'), plainStep(stepId('2'), 'leave <shop>')],
};

function read(content: CaseContent, path = '/p/read/C-1', context = {}) {
  standInProject([caseHead(1), caseHead(2)], [], {
    readArtefact: () => ({ kind: 'case', summary: caseHead(1), content, draft: null }),
    readLibrary: () => [],
  });
  return onThePage(<ReadThrough />, context, path, '/p/read/:case');
}
const steps = (): string[] => within(screen.getByRole('list', { name: 'Steps to be done' })).getAllByRole('listitem').map((li) => li.textContent ?? '');

test('instance by instance the values stand in place, and what has none is named with the step it stands in', async () => {
  read(CONTENT);
  await screen.findByText('instance 1 of 3');
  expect(steps()[0]).toContain('pay 5 coins');
  expect(screen.getByRole('button', { name: 'Instance before' })).toHaveProperty('disabled', true);
  fireEvent.click(screen.getByRole('button', { name: 'Next instance' }));
  await screen.findByText('instance 2 of 3');
  expect([steps()[0], screen.getByText('high')]).toEqual([expect.stringContaining('a receipt of 900'), expect.anything()]);
  const unclear = (): string => screen.getByRole('region', { name: 'What is unclear' }).textContent ?? '';
  expect(unclear()).toBe('1 unclear placestep 2 <shop> is not declared where it stands');
  fireEvent.click(screen.getByRole('button', { name: 'Next instance' }));
  await screen.findByText('instance 3 of 3');
  await waitFor(() => expect(unclear()).toContain('step 1 <amount> has no value in this instance'));
});

test('an address beyond the last instance opens the last; where no row runs it says so', async () => {
  read(CONTENT, '/p/read/C-1?instance=99');
  await screen.findByText('instance 3 of 3');
  cleanup();
  read({ ...CONTENT, runs: { kind: 'chosen', rows: [] } });
  expect(await screen.findByText('No row runs')).toBeTruthy();
});

test('step by step only the one that is read is seen; a question is asked at it', async () => {
  read({ ...CONTENT, covers: [] }, '/p/read/C-1?one=1&step=2');
  await screen.findByText('instance 1 of 3');
  expect(steps()).toEqual([expect.stringContaining('leave')]);
  fireEvent.click(screen.getByRole('button', { name: 'whole' }));
  await waitFor(() => expect(steps()).toHaveLength(2));
  cleanup();
  read(CONTENT, '/p/read/C-1', { canEdit: false });
  await screen.findByText('instance 1 of 3');
  expect(screen.queryByRole('button', { name: /ask/i })).toBeNull();
});

test('a scenario is read as a case: backgrounds, rows, and below a phrase what it says in full; n leads to the next of its feature', async () => {
  let made = 0;
  const text = 'Feature: f\n  Background:\n    Given meter "M-1"\n  Scenario Outline: one\n    When the clerk pays <n>\n    Then it is booked\n    Examples:\n      | n |\n      | 5 |\n      | 9 |\n  Scenario: two\n    Then it ends\n';
  const feature = withNumbers(withText({ ...EMPTY_FEATURE, path: 'f.feature' }, text, () => `i${(made += 1)}`), null);
  const shared = { ...EMPTY_SHARED, title: 'Find a meter', parameters: [{ ...amount, name: 'meter' }], steps: [plainStep(stepId('s'), 'type <meter>', '<meter> is listed')] };
  const listed = (number: number) => ({ number, name: '', tags: [], steps: 1, instances: 1 });
  standInProject([featureHead(1, { scenarios: [listed(1), listed(2)] }), sharedHead(4, { phrases: [{ phrase: keyOfExpression('meter {string}'), takes: ['meter'] }] })], [], {
    readArtefact: () => ({ kind: 'feature', summary: featureHead(1), content: feature, draft: null }),
    readLibrary: () => [{ key: 'S-4', used: { kind: 'shared', id: 'S-4', version: 1, withdrawn: false, content: shared } }],
  });
  onThePage(<ReadThrough />, {}, '/p/read/F-1/1', '/p/read/:case/:scenario?');
  await screen.findByText('instance 1 of 2');
  await waitFor(() => expect(steps().map((line) => line.replace('ask about it', ''))).toEqual(['1Given meter "M-1"', 'S-4 Find a meter2type M-1⇒ M-1 is listed', '3When the clerk pays 5', '4⇒ Then it is booked']));
  expect(screen.queryByText('nothing is said to be done')).toBeNull();
  fireEvent.keyDown(document.body, { key: 'n' });
  await waitFor(() => expect(steps().at(-1)).toContain('it ends'));
  cleanup();
  onThePage(<ReadSelection />, {}, '/p/read?cases=F-1/2,F-1/9', '/p/read');
  expect(await screen.findByText('F-1/9 cannot be read: it is not in this project.')).toBeTruthy();
  expect(screen.getByRole('heading', { name: '2 scenarios' })).toBeTruthy();
  expect(screen.getByText('Then it ends')).toBeTruthy();
});

test('what is said where one stands goes to the step that is read, also where that stands in shared steps', async () => {
  const use = { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: null, arguments: [] } as const;
  const remarks = new Map<string, unknown[]>();
  standInProject([caseHead(1), sharedHead(1)], [], {
    readArtefact: () => ({ kind: 'case', summary: caseHead(1), content: { ...CONTENT, rows: [], steps: [plainStep(stepId('1'), 'open the book'), use] }, draft: null }),
    readLibrary: () => [{ key: 'S-1', used: { kind: 'shared', id: 'S-1', version: 4, withdrawn: false, content: { ...EMPTY_SHARED, title: 'Close', steps: [plainStep(stepId('1'), 'close it')] } } }],
    listRemarks: ({ params }) => (remarks.set(params.id, remarks.get(params.id) ?? []), []),
    beginThread: ({ params, body }) => (remarks.get(params.id)?.push([body.place.path, body.version, body.said]), []),
  });
  onThePage(<ReadThrough />, {}, '/p/read/C-1', '/p/read/:case');
  await screen.findByText('close it');
  const say = async (id: string, text: string): Promise<void> => {
    fireEvent.keyDown(document.body, { key: 'r', code: 'KeyR', altKey: true });
    const view = EditorView.findFromDOM(await screen.findByLabelText(`Remark on ${id}`));
    act(() => view?.dispatch({ changes: { from: 0, insert: text } }));
    fireEvent.click(screen.getByRole('button', { name: 'Remark' }));
    await waitFor(() => expect(screen.queryByLabelText(`Remark on ${id}`)).toBeNull());
  };
  await say('C-1', 'Which book?');
  fireEvent.keyDown(document.body, { key: 'ArrowDown', code: 'ArrowDown' });
  await screen.findByRole('list', { name: 'Remarks on S-1' });
  await say('S-1', 'With the ribbon in?');
  expect([...remarks]).toEqual([['C-1', [['steps/1', 1, 'open the book']]], ['S-1', [['steps/1', 4, 'close it']]]]);
});
