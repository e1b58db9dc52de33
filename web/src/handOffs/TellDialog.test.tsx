/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { baselineNumber } from '@caderno/core/baselines';
import { handOffNumber, type HandOffLine } from '@caderno/core/handOffs';
import type { HandOff, Member, SendByMail } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { SESSION, standInProject } from '../../test/standInProject.ts';
import { Refusing } from '../../test/standInServer.ts';
import { TellDialog } from './TellDialog.tsx';

afterEach(cleanup);

const member = (n: number, name: string): Member => ({ id: `00000000-0000-4000-8000-00000000000${n}`, name, email: `m${n}@b.example`, role: 'analyst', sees: null });
const MEMBERS = [member(1, 'Rui M.'), member(2, 'Two'), member(3, 'Two')];
const line = (of: HandOffLine['of'], person: string, more: Partial<HandOffLine> = {}): HandOffLine => ({ of, version: 1, title: of, module: '', owner: '', execution: 'byHand', configuration: null, instances: 2, minutes: 10, person, ...more });
const HAND_OFF: HandOff = {
  number: handOffNumber(4), name: 'Round 6', note: '', of: 'U-1', baseline: baselineNumber(3), due: null, by: 'Inês V.', at: '2031-01-01T10:00:00.000Z', instances: 8, minutes: 60, people: [], configurations: [], now: [],
  lines: [line('C-1', 'Rui M.'), line('C-2', 'Two'), line('C-3', 'Outside'), line('C-4', ''), line('C-5', 'Robot', { execution: 'automated' })],
};

function tell(answers: Parameters<typeof standInProject>[2] = {}) {
  const sent: SendByMail[] = [];
  const server = standInProject([], [], { listMembers: () => MEMBERS, sendByMail: ({ body }) => (sent.push(body), []), ...answers });
  onThePage(<TellDialog handOff={HAND_OFF} onClose={() => undefined} />, {});
  return { sent, server };
}
const lines = () => within(screen.getByRole('list', { name: 'Who is told' })).getAllByRole('listitem').map((li) => li.textContent);
const send = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Send/ });

test('each who executes by hand gets a mail of their own, members at their address, others at the one that is written', async () => {
  const { sent } = tell();
  await waitFor(() => expect(lines()).toEqual(['Rui M.2 instances, 20\u00a0minat their address', 'Two2 instances, 20\u00a0min', 'Outside2 instances, 20\u00a0min']));
  // Nobody is told before each who is to be told can be.
  expect([send().textContent, send().disabled]).toEqual(['Send 3 mails', true]);
  fireEvent.change(screen.getByLabelText('E-mail address of Outside'), { target: { value: 'out@side' } });
  fireEvent.click(screen.getByRole('checkbox', { name: 'Two' }));
  expect([send().textContent, send().disabled]).toEqual(['Send 2 mails', true]);
  fireEvent.change(screen.getByLabelText('E-mail address of Outside'), { target: { value: ' out@side.example ' } });
  fireEvent.change(screen.getByLabelText('Note'), { target: { value: 'Begin today' } });
  fireEvent.click(send());
  await waitFor(() => expect(sent).toEqual([
    { to: [{ person: MEMBERS[0]!.id }], of: { what: 'handOff', number: 4, person: 'Rui M.' }, note: 'Begin today' },
    { to: [{ address: 'out@side.example' }], of: { what: 'handOff', number: 4, person: 'Outside' }, note: 'Begin today' },
  ]));
  await waitFor(() => expect(lines().map((l) => l?.endsWith('on the way'))).toEqual([true, false, true]));
  expect(send().disabled).toBe(true);
});

test('who was refused says why and is asked for again as the same command; who was sent is not sent again', async () => {
  let refuses = true;
  const { sent, server } = tell({
    sendByMail: ({ body }) => {
      if (refuses && body.of.what === 'handOff' && body.of.person === 'Outside') throw new Refusing({ code: 'mail_outside' });
      sent.push(body);
      return [];
    },
  });
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Two' }));
  fireEvent.change(screen.getByLabelText('E-mail address of Outside'), { target: { value: 'a@b.example' } });
  fireEvent.click(send());
  expect((await screen.findByRole('alert')).textContent).not.toBe('');
  expect([sent.length, send().textContent]).toEqual([1, 'Send 1 mail']);
  refuses = false;
  fireEvent.click(send());
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  const outside = server.calls('sendByMail').filter((c) => JSON.stringify(c.body).includes('Outside'));
  expect(new Set(outside.map((c) => c.headers.get('command-id'))).size).toBe(1);
  expect(server.calls('sendByMail')).toHaveLength(3);
});

test('a server that sends no mail says so', async () => {
  tell({ readSession: () => ({ ...SESSION, sendsMail: false }) });
  expect(await screen.findByText(/sends no mail/)).toBeTruthy();
});
