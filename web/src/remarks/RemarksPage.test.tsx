/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { remarkId } from '@caderno/core/remarks';
import type { OpenThread } from '@caderno/contract';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { StandInServer } from '../../test/standInServer.ts';
import { RemarksPage } from './RemarksPage.tsx';

afterEach(cleanup);

const thread = (n: number, artefact: ArtefactId, forMe: boolean): OpenThread => ({ artefact, title: `Title ${n}`, id: remarkId(`00000000-0000-4000-8000-${String(n).padStart(12, '0')}`), said: n === 2 ? 'Enter 120' : '', text: `Text ${n}`, name: 'Rui M.', at: '2026-06-01T09:00:00.000Z', answers: n, forMe });
function page(threads: readonly OpenThread[]) {
  new StandInServer({ listOpenThreads: () => [...threads] });
  onThePage(<RemarksPage />);
}
const lines = async () => within(await screen.findByRole('list', { name: 'Open remarks' })).getAllByRole('link').map((a) => [a.getAttribute('href'), /Text \d/.exec(a.textContent ?? '')?.[0]]);

test('those that wait for oneself stand first, and all when one asks for them', async () => {
  page([thread(1, 'C-4', false), thread(2, 'K-2', true)]);
  expect(await lines()).toEqual([[expect.stringContaining('K-2'), 'Text 2']]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Remarks for you');
  expect(screen.getByText('Enter 120')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'all 2 that are open' }));
  expect((await lines()).map(([, text]) => text)).toEqual(['Text 1', 'Text 2']);
  fireEvent.click(screen.getByRole('button', { name: 'only the 1 for you' }));
  expect(await lines()).toHaveLength(1);
});

test('where none waits, that is said and all are shown; where none is open, how one says something', async () => {
  page([thread(1, 'C-4', false)]);
  expect(await lines()).toEqual([['/p/cases/C-4', 'Text 1']]);
  expect(screen.getByText(/^None waits for you/)).toBeTruthy();
  cleanup();
  page([]);
  expect(await screen.findByText('No remark is open')).toBeTruthy();
});
