/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage, PERSON } from '../../test/onThePage.tsx';
import { SESSION, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { chooseLocale, countOf, dateAndTime } from '../look/index.ts';
import { AccountPage } from './AccountPage.tsx';

afterEach(() => {
  cleanup();
  chooseLocale(undefined);
});

test('dates and numbers are written as one chose, everywhere and the next time too, until the browser is to say again', async () => {
  const session = { id: PERSON.id, agent: 'Firefox/140 Linux', startedAt: '2026-01-05T10:00:00.000Z', seenAt: '2026-01-05T10:00:00.000Z', current: true };
  standInProject([], [], { listSessions: () => [session] });
  onThePage(<AccountPage />);
  const sessions = within(await screen.findByRole('list', { name: 'Where you are signed in' }));
  expect((await sessions.findByText(/^since/)).textContent).toMatch(/^since Jan 5, 2026/);
  const choose = async (name: RegExp): Promise<void> => {
    fireEvent.click(screen.getByRole('button', { name: /^Written as/ }));
    fireEvent.click(await screen.findByRole('option', { name }));
  };
  await choose(/^28\.11\.2026, 14:05 · 12\.345,6$/);
  expect([dateAndTime(session.startedAt), countOf(12_000, 'case')]).toEqual([expect.stringMatching(/^05\.01\.2026, /), '12.000 cases']);
  expect(localStorage.getItem('caderno-locale')).toBe('de-DE');
  expect(screen.getByRole('button', { name: /^Written as/ }).textContent).toContain('28.11.2026');
  await choose(/^the browser does: /);
  expect([countOf(12_000, 'case'), localStorage.getItem('caderno-locale')]).toEqual(['12,000 cases', null]);
});

test('one is called otherwise, and the page says so at once; a name that is somebody’s stays in the field to be mended', async () => {
  let taken = true;
  const server = standInProject([], [], {
    listSessions: () => [],
    changeName: ({ body }) => {
      if (taken) throw new Refusing({ code: 'name_taken', name: body.name });
      return { ...SESSION, person: { ...PERSON, name: body.name, administrator: false, demo: false } };
    },
  });
  onThePage(<AccountPage />);
  const field = screen.getByLabelText<HTMLInputElement>('Your name');
  const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Be called so' });
  expect([field.value, button.disabled]).toEqual(['Inês V.', true]);
  fireEvent.change(field, { target: { value: 'Rui M.' } });
  fireEvent.click(button);
  await waitFor(() => expect(server.calls('changeName')).toHaveLength(1));
  await waitFor(() => expect([field.value, button.disabled]).toEqual(['Rui M.', false]));
  taken = false;
  fireEvent.change(field, { target: { value: 'Inês Vaz' } });
  fireEvent.click(button);
  await waitFor(() => expect(server.calls('changeName').map((c) => c.body)).toEqual([{ name: 'Rui M.' }, { name: 'Inês Vaz' }]));
});
