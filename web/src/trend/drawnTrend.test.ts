import { expect, test } from '@jest/globals';
import { NO_ITEMS, perTechnique } from '@caderno/core/coverage';
import type { Trend, TrendPoint } from '@caderno/contract';
import { drawnTrend } from './drawnTrend.ts';
import { readView } from './trendView.ts';
import { differenceWords } from './trendWords.ts';

const point = (minutes: number): TrendPoint => ({
  revision: 1, at: '2026-03-01T12:00:00.000Z',
  figures: { counts: NO_ITEMS, weighted: NO_ITEMS, byRisk: { high: NO_ITEMS, medium: NO_ITEMS, low: NO_ITEMS }, byTechnique: perTechnique(() => NO_ITEMS), byModule: [], suites: [], requirements: 0, unanalysed: 0, cases: 0, instances: 0, minutes, scenarios: { scenarios: 0, byHand: 0, instances: 0, minutes: 0 } },
});

test('however long it takes, the axis of minutes holds it and is read in few whole minutes, quarters of an hour or hours', () => {
  const axis = (minutes: number) => {
    const trend: Trend = { points: [], days: 0, left: 0, now: point(minutes) };
    const { yMost, yStep = yMost } = drawnTrend(trend, readView(new URLSearchParams('show=minutes')), new Map());
    return { yMost, yStep };
  };
  for (const minutes of [0.5, 1, 7, 29, 60, 61, 119, 500, 970, 1_000, 3_599, 3_601, 12_345, 999_999]) {
    const { yMost, yStep } = axis(minutes);
    expect(yMost).toBeGreaterThanOrEqual(minutes);
    expect(yMost / yStep).toBeLessThanOrEqual(6);
    expect(yStep <= 60 ? 60 % yStep : yStep % 60).toBe(0);
  }
  expect(axis(970)).toEqual({ yMost: 1_080, yStep: 180 });
  expect(axis(0)).toEqual({ yMost: 1, yStep: 1 });
});

test('what time changed by is told as time', () => {
  expect([differenceWords(84, 207, 'minutes'), differenceWords(207, 84, 'minutes'), differenceWords(84, 207, 'instances')]).toEqual(['+2\u00a0h', '−2\u00a0h', '+123']);
});
