/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { ArtefactId } from '@caderno/core/artefacts';
import { baselineNumber } from '@caderno/core/baselines';
import type { NewBaseline } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { requirementHead, standInProject } from '../../test/standInProject.ts';
import { TakeBaseline } from './TakeBaseline.tsx';

afterEach(cleanup);

/** The dialog, and what it asks for. */
function dialog(ids?: readonly ArtefactId[]) {
  const taken: NewBaseline[] = [];
  standInProject([requirementHead(1, { module: 'Meters' })], [], {
    takeBaseline: ({ body }) => (taken.push(body), { number: baselineNumber(4), name: body.name, note: '', by: 'Rui M.', at: '2026-01-01T10:00:00.000Z', part: 'x', revision: 1, seal: 'a'.repeat(64), counts: {}, agreed: 0, coverage: null }),
  });
  onThePage(<TakeBaseline onClose={() => undefined} {...(ids === undefined ? {} : { ids })} />, {}, '/p/cases');
  return taken;
}

const take = (name: string): void => {
  fireEvent.change(screen.getByLabelText('Name'), { target: { value: name } });
  fireEvent.click(screen.getByRole('button', { name: 'Take it' }));
};

test('of what is selected, of a module, of a requirement; it leads to the baseline', async () => {
  const selected = dialog(['C-1', 'C-3']);
  expect([screen.getByText('Of the 2 selected, with all that is used there.').tagName, screen.queryByLabelText('Of')]).toEqual(['P', null]);
  take('Two');
  await waitFor(() => expect(selected).toEqual([{ name: 'Two', note: '', of: { ids: ['C-1', 'C-3'] } }]));
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/p/baselines/4'));
  for (const [chosen, of] of [['module: Meters', { module: 'Meters' }], ['R-1', { requirement: 'R-1' }]] as const) {
    cleanup();
    const taken = dialog();
    await waitFor(() => expect(screen.getByLabelText<HTMLSelectElement>('Of').options).toHaveLength(3));
    fireEvent.change(screen.getByLabelText('Of'), { target: { value: chosen } });
    take('One');
    await waitFor(() => expect(taken).toEqual([{ name: 'One', note: '', of }]));
  }
});
