/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Invitation } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { SESSION, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { AddMember } from './AddMember.tsx';
import { ForgottenPassword } from './ForgottenPassword.tsx';
import { Invited } from './Invited.tsx';
import { NewAddress } from './NewAddress.tsx';

afterEach(cleanup);

const write = (label: string | RegExp, value: string): void => void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string): void => void fireEvent.click(screen.getByRole('button', { name }));
const invitation = (part: Partial<Invitation> = {}): Invitation => ({ id: crypto.randomUUID(), email: 'olga@example.com', role: 'reader', by: 'Inês V.', madeAt: '2026-01-01T10:00:00.000Z', endsAt: '2026-01-15T10:00:00.000Z', mail: { state: 'waiting', answer: '' }, ...part });

test('somebody is invited by mail; what became of the mail is seen, again and withdrawn by a click', async () => {
  let waiting = [invitation({ email: 'old@example.com', mail: { state: 'refused', answer: '550 nobody' } })];
  const server = standInProject([], [], {
    listInvitations: () => waiting,
    invite: ({ body }) => ((waiting = [...waiting.filter((i) => i.email !== body.email), invitation({ ...body })]), { invitations: waiting, joined: null }),
    withdrawInvitation: () => (waiting = []),
  });
  onThePage(<AddMember project="p" />);
  expect(await screen.findByText(/The mail was not sent\. The mail server: 550 nobody/)).toBeTruthy();
  fireEvent.change(screen.getAllByLabelText('E-mail address')[0]!, { target: { value: 'olga@example.com' } });
  fireEvent.change(screen.getAllByLabelText('Role')[0]!, { target: { value: 'reader' } });
  press('Invite');
  expect(await screen.findByText(/The mail is about to be sent/)).toBeTruthy();
  expect(server.calls('invite').map((c) => c.body)).toEqual([{ email: 'olga@example.com', role: 'reader' }]);
  press('Withdraw the invitation of olga@example.com');
  await waitFor(() => expect(screen.queryByText('Invited, not here yet')).toBeNull());
});

test('without mail accounts are made by hand, as before', async () => {
  standInProject([], [], { readSession: () => ({ ...SESSION, sendsMail: false }) });
  onThePage(<AddMember project="p" />);
  await waitFor(() => expect(screen.getByRole('heading', { name: 'Add someone' })).toBeTruthy());
  expect(screen.queryByRole('button', { name: 'Invite' })).toBeNull();
});

test('an invitation says to what it is, makes the account and leads in; what the server refuses is told', async () => {
  window.location.hash = '#a-word-of-twenty-letters-and-more';
  let refuse = true;
  standInProject([], [], {
    openInvitation: () => ({ project: 'Meters', email: 'olga@example.com', role: 'reader', by: 'Inês V.' }),
    acceptInvitation: () => {
      if (refuse) throw new Refusing({ code: 'invitation_ended' });
      return SESSION;
    },
  });
  onThePage(<Invited />, {}, '/invited');
  expect(await screen.findByText(/Inês V\. invites you, as reader\. You sign in with olga@example\.com/)).toBeTruthy();
  press('Come in');
  expect(await screen.findByText('Your name is needed.')).toBeTruthy();
  write('Your name', 'Olga S.');
  write('Password', 'a long way to the well');
  press('Come in');
  expect((await screen.findByRole('alert')).textContent).toContain('This invitation was taken up, withdrawn, or has ended.');
  refuse = false;
  press('Come in');
  await waitFor(() => expect(screen.getByTitle('Address').textContent).toBe('/'));
});

test('a link that is not whole says so; a new address is taken by a click only', async () => {
  window.location.hash = '';
  standInProject([], []);
  onThePage(<Invited />);
  expect(await screen.findByText('The link is not whole. Copy all of it from the mail.')).toBeTruthy();
  cleanup();
  window.location.hash = '#another-word-of-twenty-letters';
  const server = standInProject([], [], { confirmEmail: () => SESSION });
  onThePage(<NewAddress />);
  expect(server.calls('confirmEmail')).toEqual([]);
  press('Take it');
  expect(await screen.findByText('It is yours now.')).toBeTruthy();
  expect(server.calls('confirmEmail').map((c) => c.body)).toEqual([{ token: 'another-word-of-twenty-letters' }]);
});

test('a forgotten password: the same words whether there is an account or not; without mail an administrator is named', async () => {
  const server = standInProject([], [], { forgetPassword: () => ({}) });
  onThePage(<ForgottenPassword session={{ ...SESSION, mailPage: 'http://127.0.0.1:1' }} />);
  press('Forgotten your password?');
  write('Your e-mail address', 'olga@example.com');
  press('Mail me a link');
  expect((await screen.findByRole('status')).textContent).toContain('If there is an account with olga@example.com, a mail');
  expect(server.calls('forgetPassword').map((c) => c.body)).toEqual([{ email: 'olga@example.com' }]);
  cleanup();
  onThePage(<ForgottenPassword session={{ ...SESSION, sendsMail: false }} />);
  press('Forgotten your password?');
  expect(screen.getByText(/An administrator of it makes a link/)).toBeTruthy();
});
