/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { handOffNumber } from '@caderno/core/handOffs';
import { remarkId } from '@caderno/core/remarks';
import type { ReturnedNotes } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { caseHead } from '../../test/heads.ts';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { BringBack } from './BringBack.tsx';

afterEach(cleanup);

const remark = (n: number) => remarkId(`00000000-0000-8000-8000-00000000000${n}`);
const proposal = (n: number, more: Partial<ReturnedNotes['proposals'][number]> = {}): ReturnedNotes['proposals'][number] => ({ remark: remark(n), there: false, of: 'C-1', version: 2, place: { path: 'steps/s', words: null }, said: 'open it', text: `Remark ${n}`, offer: null, instances: ['C-1·low'], step: 1, ...more });
const CAME: ReturnedNotes = {
  by: 'A tester',
  proposals: [proposal(1, { instances: ['C-1·low', 'C-1·high'] }), proposal(2, { place: { path: 'steps/s/action', words: null }, text: 'Executed as: open it twice', offer: 'open <it> twice' }), proposal(3, { there: true }), proposal(4, { of: 'C-2' })],
  total: 4,
  unplaced: [{ instance: 'C-9', step: 2, why: 'unknownInstance' }, { instance: 'C-1', step: null, why: 'otherHandOff' }],
  unplacedTotal: 2,
};

function bringing(answer: ReturnedNotes | 'unreadable' = CAME, refuse = false) {
  const server = standInProject([caseHead(1), caseHead(2)], [], {
    readReturned: () => {
      if (answer === 'unreadable') throw new Refusing({ code: 'returned_unreadable' });
      return answer;
    },
    beginThread: ({ params }) => {
      if (refuse && params.id === 'C-2') throw new Refusing({ code: 'artefact_unknown', id: 'C-2' });
      return [];
    },
  });
  onThePage(<BringBack number={handOffNumber(2)} />);
  fireEvent.change(screen.getByLabelText('File that came back'), { target: { files: [Object.assign(new File(['x'], 'back.csv'), { arrayBuffer: () => Promise.resolve(new TextEncoder().encode('x').buffer) })] } });
  return server;
}

test('what came back is shown place by place; what is ticked is put there with where it is from, a changed text as an offer', async () => {
  const server = bringing();
  const dialog = within(await screen.findByRole('dialog', { name: 'What came back of H-2, from A tester' }));
  expect(within(dialog.getByRole('list', { name: 'What came back' })).getAllByRole('listitem').map((li) => li.textContent)).toEqual(['C-1Remark 1C-1·low and 1 other, step 1: open it', 'C-1open it twiceC-1·low, step 1', 'C-1Remark 3C-1·low, step 1: open it · at its place already', 'C-2Remark 4C-1·low, step 1: open it']);
  expect([dialog.getByText('C-9, step 2: no such instance was handed off'), dialog.getByText('C-1: of another hand-off or project')]).toHaveLength(2);
  fireEvent.click(dialog.getByRole('checkbox', { name: 'Put at C-2: Remark 4' }));
  fireEvent.click(dialog.getByRole('button', { name: 'Put 2 remarks there' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(server.calls('beginThread').map(({ params, body }) => [params.id, body])).toEqual([
    ['C-1', { remark: remark(1), place: { path: 'steps/s', words: null }, said: 'open it', version: 2, text: 'Remark 1\n\n(H-2, C-1·low, C-1·high, A tester)' }],
    ['C-1', { remark: remark(2), place: { path: 'steps/s/action', words: null }, said: 'open it', version: 2, text: 'Executed as: open it twice\n\n(H-2, C-1·low, A tester)', offer: 'open <it> twice' }],
  ]);
});

test('what cannot be put is said, and what was put is not put again; what is no such file is refused', async () => {
  const server = bringing(CAME, true);
  fireEvent.click(await screen.findByRole('button', { name: 'Put 3 remarks there' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/^C-2: /);
  expect(screen.getByRole('button', { name: 'Put 1 remark there' })).toBeTruthy();
  expect(server.calls('beginThread')).toHaveLength(3);
  cleanup();
  bringing('unreadable');
  await waitFor(() => expect(screen.getByRole('button', { name: 'Bring back what was remarked' })).toBeTruthy());
  expect(screen.queryByRole('dialog')).toBeNull();
  cleanup();
  bringing({ by: '', proposals: [], total: 0, unplaced: [], unplacedTotal: 0 });
  expect(await screen.findByText('Nothing was remarked, changed or timed in it.')).toBeTruthy();
});
