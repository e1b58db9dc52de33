/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { CarryDialog } from './CarryDialog.tsx';

afterEach(cleanup);
beforeEach(() => {
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = () => undefined;
});

const counts = { requirement: 1, condition: 2, case: 12, question: 0, shared: 1, dataSet: 0, feature: 0, suite: 0 };

function dialog(answers: Parameters<typeof standInProject>[2]) {
  let closed = 0;
  const server = standInProject([], [], answers);
  onThePage(<CarryDialog of={{ ids: ['C-1'] }} words="1 case" onClose={() => (closed += 1)} />);
  return { server, closed: () => closed };
}

test('what comes along is said before it is saved; the bytes of files are left out on demand', async () => {
  const { server, closed } = dialog({ readAlong: () => ({ counts, files: 3, bytes: 40_000 }), exportDesign: () => ({ name: 'x', type: 'application/json', bytes: new Uint8Array() }) as never });
  await screen.findByText('12');
  expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual(['1requirement', '2conditions', '12cases', '1shared steps']);
  fireEvent.click(screen.getByLabelText('with 3 attached files (39 kB)'));
  fireEvent.click(screen.getByRole('button', { name: 'Its JSON Schema' }));
  await waitFor(() => expect(server.calls('exportDesign').map((c) => c.body)).toEqual([{ of: { ids: ['C-1'] }, files: false, form: 'schema' }]));
  expect(closed()).toBe(0);
  await waitFor(() => expect(screen.getByRole('button', { name: 'Save the design file' })).toHaveProperty('disabled', false));
  fireEvent.click(screen.getByRole('button', { name: 'Save the design file' }));
  await waitFor(() => expect(closed()).toBe(1));
  expect(server.calls('exportDesign')[1]?.body).toEqual({ of: { ids: ['C-1'] }, files: false, form: 'file' });
});

test('what cannot be read along is named, and nothing is saved by halves', async () => {
  dialog({ readAlong: () => { throw new Refusing({ code: 'artefact_broken', id: 'S-7', version: 2 }); } });
  await screen.findByText(/S-7/);
  expect(screen.getByRole('button', { name: 'Save the design file' })).toHaveProperty('disabled', true);
});
