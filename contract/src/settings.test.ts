import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { outsideHostsSchema } from './accounts.ts';
import { DEFAULT_SETTINGS, projectSettingsSchema, readStoredSettings } from './settings.ts';

describe('stored settings', () => {
  const some = { ...DEFAULT_SETTINGS, depths: ['smoke'], mostItems: 300, glossary: [{ id: 't', term: 'weir', forms: [], definition: 'A low dam.' }] };

  test('are read as they are, those of before with defaults for what they did not know', () => {
    expect(readStoredSettings(some)).toEqual({ settings: some, broken: [] });
    const { looksOff: _, configurations: __, ...older } = some;
    expect(readStoredSettings(older)).toEqual({ settings: some, broken: [] });
  });

  test('lose the parts that cannot be read and no other, by name', () => {
    const parts = Object.keys(DEFAULT_SETTINGS) as (keyof typeof DEFAULT_SETTINGS)[];
    fc.assert(
      fc.property(fc.subarray(parts, { minLength: 1 }), fc.constantFrom(7, 'x', { a: 1 }, [null], true), (spoilt, value) => {
        const { settings, broken } = readStoredSettings({ ...some, ...Object.fromEntries(spoilt.map((part) => [part, value])) });
        expect(projectSettingsSchema.safeParse(settings).success).toBe(true);
        for (const part of parts) expect(settings[part]).toEqual(broken.includes(part) ? DEFAULT_SETTINGS[part] : spoilt.includes(part) ? settings[part] : some[part]);
        expect(spoilt).toEqual(expect.arrayContaining([...broken]));
      }),
      { seed: 12 },
    );
  });

  test('that are nothing at all are the defaults', () => {
    for (const stored of [7, 'x', [], null]) expect(readStoredSettings(stored).settings).toEqual(DEFAULT_SETTINGS);
  });
});

test('hosts are names or addresses, with a port or any', () => {
  const takes = (host: string): boolean => outsideHostsSchema.safeParse({ hosts: [host] }).success;
  expect(['tracker.example', 'TRACKER.example:8080', '10.1.2.3', '[::1]:80', 'localhost:*', 'a'].map(takes)).toEqual([true, true, true, true, true, true]);
  expect(['', 'http://tracker.example', 'tracker.example/path', 'a b', '-a.example', 'a.example:', 'a.example:123456', '*', '*.example', 'user@host'].map(takes)).toEqual(Array.from({ length: 10 }, () => false));
});
