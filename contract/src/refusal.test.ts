import { expect, test } from '@jest/globals';
import { STATUS_OF_REFUSAL, refusalSentence, type Refusal, type RefusalCode } from './refusal.ts';

/** Facts that every refusal finds among these what it needs. */
const FACTS = {
  issues: [{ path: 'content.title', message: 'is too long' }], expected: 'application/json', limit: 26_214_400, seconds: 60, needed: 'lead', have: 'reader', project: 'water', module: 'Billing', id: 'C-7', version: 3, change: 'x', kind: 'case', title: 'Meter', head: 4, base: 2, author: 'Rui M.',
  at: 'C-7 v2', reason: 'its content cannot be read', bytes: 30_000_000, files: true, wrong: 'damaged',
  path: ['C-1', 'C-2', 'C-1'], instances: 120_000, name: 'dial.png', paths: ['steps'], people: ['Rui M.'], users: ['C-2'], errors: 2, count: 5, side: 10_000, pixels: 50_000_000, of: 'project', failure: 'slow', email: 'a@b.example', who: 'Rui M.', host: 'elsewhere.example', answer: '451 busy', changed: 1, missing: 2, unknown: 3, first: ['meters/C-1.yaml'], reference: 'ab12cd34', text: 'a(',
};

const codes = Object.keys(STATUS_OF_REFUSAL) as RefusalCode[];

test.each(codes)('%s says in whole sentences what happened, with its facts', (code) => {
  const sentence = refusalSentence({ code, ...FACTS } as unknown as Refusal);
  expect(sentence).toMatch(/^[A-Z‘0-9].*[.]$/);
  expect(sentence).not.toMatch(/undefined|NaN|\[object|null/);
});

test('whoever is to come again later is told so by the status', () => {
  const later = codes.filter((code) => [429, 503, 507].includes(STATUS_OF_REFUSAL[code]));
  expect(later.sort()).toEqual(['database_unavailable', 'disk_full', 'files_unavailable', 'project_busy', 'server_stopping', 'too_many_attempts', 'too_many_streams', 'too_much_at_once']);
});
