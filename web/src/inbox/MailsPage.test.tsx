/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { MailLine } from '@caderno/contract';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { SESSION, standInProject } from '../../test/standInProject.ts';
import { MailsPage } from './MailsPage.tsx';

afterEach(cleanup);

const mail = (n: number, part: Partial<MailLine> = {}): MailLine => ({ id: `00000000-0000-4000-8000-00000000000${n}`, to: `Person ${n}`, subject: `C-${n}`, state: 'sent', answer: '', tries: 1, madeAt: '2026-01-01T10:00:00.000Z', nextAt: null, endedAt: '2026-01-01T10:01:00.000Z', ...part });

test('which were sent, which wait and why, which came back; sent again, taken back', async () => {
  let mails = [mail(1, { state: 'waiting', tries: 3, answer: '451 too busy', nextAt: '2026-01-01T11:00:00.000Z', endedAt: null }), mail(2, { state: 'refused', answer: '550 nobody' }), mail(3), mail(4, { state: 'waiting', tries: 0, endedAt: null })];
  const put = (id: string, part: Partial<MailLine>) => (mails = mails.map((m) => (m.id === id ? { ...m, ...part } : m)));
  standInProject([], [], {
    readSession: () => ({ ...SESSION, mailPage: 'http://127.0.0.1:1' }),
    listMails: () => mails,
    sendMailAgain: ({ params }) => put(params.mail, { state: 'waiting', tries: 0, answer: '' }),
    takeBackMail: ({ params }) => (mails = mails.filter((m) => m.id !== params.mail)),
  });
  onThePage(<MailsPage />, {}, '/p/mails');
  const lines = () => screen.getAllByRole('listitem').map((l) => l.textContent ?? '');
  await waitFor(() => expect(lines()).toHaveLength(4));
  expect(lines()[0]).toMatch(/Person 1 C-1waits: tried 3 times, again at .*The mail server: 451 too busy$/);
  expect([lines()[1], lines()[2], lines()[3]]).toEqual([expect.stringMatching(/not sent: given up .*550 nobody$/), expect.stringMatching(/^Person 3 C-3sent /), expect.stringContaining('about to be sent')]);
  expect(within(screen.getAllByRole('listitem')[2]!).queryByRole('button')).toBeNull();
  expect(screen.getByRole('link', { name: 'Mail is simulated here: read it' }).getAttribute('href')).toBe('http://127.0.0.1:1');
  fireEvent.click(screen.getByRole('button', { name: 'Send again to Person 2' }));
  await waitFor(() => expect(lines()[1]).toContain('about to be sent'));
  fireEvent.click(screen.getByRole('button', { name: 'Take back the mail to Person 1' }));
  await waitFor(() => expect(lines()).toHaveLength(3));
});
