import { expect, test } from '@jest/globals';
import { linesOf } from './ServerStanding.tsx';

const NOW = Date.parse('2026-11-27T12:00:00.000Z');
const fine = { version: '0.1.0', startedAt: '2026-11-27T10:00:00.000Z', servers: 3, people: 1, pages: 2, imports: { running: 0, waiting: 0 }, coverageBehind: 0, bytes: 5_000_000, attachmentBytes: 1, lastBackup: '2026-11-27T01:00:00.000Z', mail: { server: 'mail.example:587', from: 'Caderno <c@notes.example>', waiting: 0, refused: 0, lastAnswer: '' } };
const bad = (more: Partial<typeof fine> | { lastBackup: null }): string[] => linesOf({ ...fine, ...more }, NOW).filter((l) => l.isBad).map((l) => l.name);

test('what somebody should look at is marked: nobody hears of changes, no backup or an old one', () => {
  expect([bad({}), bad({ servers: 0 }), bad({ lastBackup: null }), bad({ lastBackup: '2026-11-24T01:00:00.000Z' }), bad({ mail: { ...fine.mail, waiting: 2, refused: 1, lastAnswer: '451 busy' } })]).toEqual([[], ['On line'], ['Last backup'], ['Last backup'], ['Mail']]);
  const mail = (part: Partial<typeof fine.mail> | { server: null }) => linesOf({ ...fine, mail: { ...fine.mail, ...part } }, NOW).find((l) => l.name === 'Mail')?.words;
  expect([mail({}), mail({ waiting: 2, refused: 1, lastAnswer: '451 busy' }), mail({ server: null })]).toEqual([
    'through mail.example:587, from Caderno <c@notes.example>; all sent',
    'through mail.example:587, from Caderno <c@notes.example>; 2 mails waiting, 1 mail given up this week. The mail server said last: 451 busy',
    'none is sent: no mail server was named at the start',
  ]);
  expect(linesOf({ ...fine, imports: { running: 1, waiting: 2 }, coverageBehind: 1 }, NOW).map((l) => l.words)).toEqual(expect.arrayContaining(['1 person on 2 pages through this server; 3 servers on this database', '1 running, 2 files not imported yet', 'being brought up to date in 1 project', '5 MB, of which attached files 1 MB']));
});
