import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { badge, percentDown, readPercent, reaches } from './index.ts';

test.each([['80', 8_000], ['79.5', 7_950], ['0.01 %', 1], ['100', 10_000], [' 7 ', 700], ['100.01', null], ['-1', null], ['8e1', null], ['79.505', null], ['', null], ['80,5', null]])('%j is read as %j hundredths of a percent', (text, hundredths) => {
  expect(readPercent(text)).toBe(hundredths);
});

test('what is asked for is reached exactly, without rounding; where there is nothing to show, nothing is', () => {
  expect([reaches({ part: 2, of: 3 }, 6_666), reaches({ part: 2, of: 3 }, 6_667), reaches({ part: 3, of: 3 }, 10_000), reaches({ part: 0, of: 0 }, 0), reaches({ part: 0, of: 5 }, 0)]).toEqual([true, false, true, false, true]);
  fc.assert(
    fc.property(fc.nat(5_000), fc.nat(5_000), fc.integer({ min: 0, max: 100 }), (part, more, asked) => {
      const ratio = { part, of: part + more };
      // The percentage that is told is rounded down: whoever reads it as reached is right.
      expect(reaches(ratio, asked * 100)).toBe((percentDown(ratio) ?? -1) >= asked);
    }),
  );
});

test('a badge is well-formed whatever it is called, says its share rounded down, and asks nothing of any network', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }).filter((s) => !/[\u0000-\u001f\u007f-\u009f\ud800-\udfff\ufffe\uffff]/.test(s)), fc.nat(50), fc.nat(50), (label, part, more) => {
      let texts = '';
      const parser = new SaxesParser();
      parser.on('text', (text) => (texts += text));
      parser.on('error', (error) => {
        throw error;
      });
      const svg = badge(label, { part, of: part + more });
      parser.write(svg).close();
      expect(texts).toContain(part + more === 0 ? 'nothing to show' : `${Math.floor((100 * part) / (part + more))} %`);
      expect(svg.replaceAll('http://www.w3.org/2000/svg', '')).not.toMatch(/href|url\(/);
    }),
  );
  const fill = (part: number) => /z" fill="(#\w+)"/.exec(badge('shown', { part, of: 100 }))?.[1];
  expect(new Set([fill(80), fill(100)]).size).toBe(1);
  expect(new Set([fill(79), fill(80), fill(49)]).size).toBe(3);
});
