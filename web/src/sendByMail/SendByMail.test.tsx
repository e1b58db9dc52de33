/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { Member, SendByMail } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { PERSON, onThePage } from '../../test/onThePage.tsx';
import { SESSION, standInProject } from '../../test/standInProject.ts';
import { SendByMailButton } from './SendByMailButton.tsx';

afterEach(cleanup);

const members: Member[] = [{ ...PERSON, role: 'lead', sees: null }, { id: '00000000-0000-4000-8000-000000000002', name: 'Rui M.', email: 'rui@example.com', role: 'analyst', sees: null }];

function dialog(context = {}, sendsMail = true): SendByMail[] {
  const sent: SendByMail[] = [];
  standInProject([], [], { readSession: () => ({ ...SESSION, sendsMail }), listMembers: () => members, sendByMail: ({ body }) => (sent.push(body), []) });
  onThePage(<SendByMailButton of={{ what: 'artefact', id: 'C-1' }} words="C-1" />, context);
  const button = screen.queryByRole('button', { name: 'Send by mail' });
  if (button !== null) fireEvent.click(button);
  return sent;
}
const send = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Send' });

test('to people of the project but oneself and to addresses, with a note; nothing goes to what is no address', async () => {
  const sent = dialog();
  expect((await screen.findAllByRole('checkbox')).map((box) => box.parentElement?.textContent)).toEqual(['Rui M.']);
  expect(send().disabled).toBe(true);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Rui M.' }));
  const outside = screen.getByRole('textbox', { name: /And to these addresses/ });
  fireEvent.change(outside, { target: { value: 'a@b.example; not-one' } });
  expect([screen.getByText('Not an e-mail address: not-one').tagName, send().disabled]).toEqual(['SPAN', true]);
  fireEvent.change(outside, { target: { value: 'a@b.example, c@d.example' } });
  fireEvent.change(screen.getByRole('textbox', { name: 'Note' }), { target: { value: 'Look' } });
  fireEvent.click(send());
  await waitFor(() => expect(sent).toEqual([{ to: [{ person: members[1]!.id }, { address: 'a@b.example' }, { address: 'c@d.example' }], of: { what: 'artefact', id: 'C-1' }, note: 'Look' }]));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

test('readers send inside only; where no mail is sent it is said; of how it was nothing is sent', async () => {
  dialog({ canEdit: false });
  await screen.findByRole('checkbox', { name: 'Rui M.' });
  expect(screen.queryByRole('textbox', { name: /addresses/ })).toBeNull();
  cleanup();
  dialog({}, false);
  expect(await screen.findByText(/This server sends no mail/)).toBeTruthy();
  cleanup();
  dialog({ isPast: true });
  expect(screen.queryByRole('button', { name: 'Send by mail' })).toBeNull();
});
