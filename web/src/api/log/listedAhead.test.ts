/** @jest-environment ./web/test/browserEnvironment.mjs */
import { expect, test } from '@jest/globals';
import type { CoverageRow } from '@caderno/core/coverage';
import { caseHead } from '../../../test/heads.ts';
import { headsOf } from './headLists.ts';
import { madeOf } from './listed.ts';
import { AT_A_TIME, listedInParts } from './listedAhead.ts';
import type { KnownProject } from './projectLog.ts';

/** Rows that tell how often they were asked for one. */
class CountedRows extends Map<string, CoverageRow> {
  asked = 0;
  override get(id: string): CoverageRow | undefined {
    this.asked += 1;
    return super.get(id);
  }
}

test('lines are made a part at a time, and found made by whoever opens the list', () => {
  const count = 2 * AT_A_TIME + 1;
  const rows = new CountedRows([['C-1', { kind: 'case', id: 'C-1', shows: true, counts: { instances: 7, steps: 7 } }]]);
  const known: KnownProject = { revision: 1, heads: headsOf(Array.from({ length: count }, (_, i) => caseHead(i + 1))), suspectLinks: 0, coverage: { edition: 1, rows }, coverageError: null };
  const parts: number[] = [];
  for (const _ of listedInParts(known)) parts.push(rows.asked);
  expect(parts).toHaveLength(3);
  const perCase = rows.asked / count;
  // No part does all of it.
  expect(parts[0]).toBe(AT_A_TIME * perCase);
  rows.asked = 0;
  const listed = madeOf(known, known.heads.lists.case);
  expect(rows.asked).toBe(count);
  expect(perCase).toBeGreaterThan(1);
  expect([listed.length, listed.find((l) => l.id === 'C-1'), listed.find((l) => l.id === 'C-2')]).toMatchObject([count, { instances: 7, shows: true }, { instances: 1, shows: false }]);
});
