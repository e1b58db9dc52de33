import { expect, test } from '@jest/globals';
// @ts-expect-error The scripts run before anything is installed and have no types.
import { slowerThan } from '../scripts/benchFigures.mjs';

test('what got worse is told, noise is not, and what nobody measured before is new', () => {
  const kept = { slow: 100, small: 2, same: 100, sizes: 40 };
  const figures = [{ what: 'slow', ms: 130 }, { what: 'small', ms: 6 }, { what: 'same', ms: 120 }, { what: 'sizes', ms: 60, unit: 'kB' }, { what: 'fresh', ms: 1 }];
  expect(slowerThan(kept, figures)).toEqual(['SLOWER slow: 100 ms before, 130.0 ms now', 'SLOWER sizes: 40 kB before, 60.0 kB now', 'NEW    fresh: 1.0 ms']);
});
