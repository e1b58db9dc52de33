/** @jest-environment ./web/test/browserEnvironment.mjs */
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type * as LocalDrafts from './localDraft.ts';

const PLACE = { project: 'p', person: 'x', of: 'C-1' };
const DRAFT = { base: 1, baseContent: { title: 'A' }, content: { title: 'B' }, at: '2027-01-05T09:00:00Z' };

let local: typeof LocalDrafts;
const open = indexedDB.open.bind(indexedDB);
let answers = true;

beforeEach(async () => {
  jest.resetModules();
  local = await import('./localDraft.ts');
  answers = true;
  // A request that is never answered, as browsers have them at times.
  Object.defineProperty(indexedDB, 'open', { configurable: true, value: (...given: Parameters<typeof open>) => (answers ? open(...given) : {}) });
});
afterEach(() => {
  jest.useRealTimers();
});

test('what is kept is read until it is dropped, by whoever kept it', async () => {
  expect([await local.keepLocally(PLACE, DRAFT), await local.readLocally(PLACE), await local.readLocally({ ...PLACE, person: 'y' })]).toEqual([true, DRAFT, null]);
  await local.dropLocally(PLACE);
  expect(await local.readLocally(PLACE)).toBeNull();
});

test('a storage that never answers holds no page up, and nothing in it that was not read is written over', async () => {
  await local.keepLocally(PLACE, DRAFT);
  jest.resetModules();
  answers = false;
  const silent = await import('./localDraft.ts');
  jest.useFakeTimers();
  const read = silent.readLocally(PLACE);
  await jest.advanceTimersByTimeAsync(4_000);
  expect(await read).toBeNull();
  jest.useRealTimers();
  answers = true;
  expect(await silent.keepLocally(PLACE, { ...DRAFT, content: { title: 'written over' } })).toBe(false);
  await silent.dropLocally(PLACE);
  jest.resetModules();
  const later = await import('./localDraft.ts');
  expect(await later.readLocally(PLACE)).toEqual(DRAFT);
});
