/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { AccessTokenLine } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { AccessTokens } from './AccessTokens.tsx';

afterEach(cleanup);

const line = (n: number, more: Partial<AccessTokenLine> = {}): AccessTokenLine => ({ id: `00000000-0000-4000-8000-00000000000${n}`, name: `token ${n}`, project: 'p', projectName: 'Water', scope: 'read', madeAt: '2026-01-01T00:00:00.000Z', usedAt: null, expiresAt: '2099-01-01T00:00:00.000Z', ...more });

test('a token is made for this project and shown once; it is withdrawn at once, and one that has ended says so', async () => {
  let tokens = [line(1, { expiresAt: '2026-01-02T00:00:00.000Z', scope: 'write' })];
  const server = standInProject([], [], {
    listTokens: () => tokens,
    makeToken: ({ body }) => {
      tokens = [line(2, { name: body.name, scope: body.scope }), ...tokens];
      return { token: 'caderno_secret', tokens };
    },
    withdrawToken: ({ params }) => (tokens = tokens.filter((t) => t.id !== params.token)),
  });
  onThePage(<AccessTokens />);
  const list = within(await screen.findByRole('list', { name: 'Access tokens' }));
  await list.findByText(/may read and write in Water/);
  expect(list.getByText(/has ended/)).toBeTruthy();
  const make = screen.getByRole<HTMLButtonElement>('button', { name: 'Make a token' });
  expect(make.disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Name of the token'), { target: { value: ' nightly ' } });
  fireEvent.click(screen.getByRole('button', { name: /^How long/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'for a year' }));
  fireEvent.click(make);
  const shown = within(await screen.findByRole('status'));
  expect(shown.getByLabelText<HTMLInputElement>('The token').value).toBe('caderno_secret');
  expect(server.calls('makeToken')[0]?.body).toEqual({ name: 'nightly', project: 'p', scope: 'read', days: 366 });
  fireEvent.click(shown.getByRole('button', { name: 'Done' }));
  expect(screen.queryByDisplayValue('caderno_secret')).toBeNull();
  expect(list.getAllByRole('listitem')).toHaveLength(2);
  fireEvent.click(list.getByRole('button', { name: 'Withdraw nightly' }));
  await waitFor(() => expect(list.getAllByRole('listitem')).toHaveLength(1));
});
