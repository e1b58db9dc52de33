import { expect, test } from '@jest/globals';
import { decodeText, lineOf } from './decodeText.ts';

const AT_80 = Array.from({ length: 32 }, (_, i) => 0x80 + i);

function bytesOf(...values: number[]): Uint8Array {
  return Uint8Array.from(values);
}

test('what a spreadsheet writes in Windows-1252 keeps its quotation marks, dashes and signs, guessed or asked for', () => {
  const bytes = bytesOf(0x84, 0x6e, 0x65, 0x75, 0x93, 0x20, 0x96, 0x20, 0x35, 0x80, 0x20, 0xfc, 0x85);
  expect(decodeText(bytes)).toMatchObject({ text: '„neu“ – 5€ ü…', encoding: 'windows-1252', problems: [{ code: 'encoding_guessed' }] });
  expect(decodeText(bytes, 'windows-1252').problems).toEqual([]);
  // Its neighbour for Turkish has the same there but for two letters, which the one for Central Europe has: both are decoded well everywhere.
  const judge = (byte: number): string => new TextDecoder([0x8e, 0x9e].includes(byte) ? 'windows-1250' : 'windows-1254').decode(bytesOf(byte));
  expect([...decodeText(Uint8Array.from(AT_80), 'windows-1252').text]).toEqual(AT_80.map(judge));
});

test('a mark at the beginning says the encoding, else zeros in every other byte, else that all of it is UTF-8', () => {
  const utf16 = (text: string, little: boolean): number[] => [...text].flatMap((c) => (little ? [c.charCodeAt(0), 0] : [0, c.charCodeAt(0)]));
  const cases: readonly (readonly [readonly number[], string, string])[] = [
    [[0xef, 0xbb, 0xbf, 0x61, 0xc3, 0xbc], 'aü', 'utf-8'],
    [[0x61, 0xc3, 0xbc], 'aü', 'utf-8'],
    [[0xff, 0xfe, ...utf16('Case', true)], 'Case', 'utf-16le'],
    [[0xfe, 0xff, ...utf16('Case', false)], 'Case', 'utf-16be'],
    [utf16('Case', true), 'Case', 'utf-16le'],
    [utf16('Case', false), 'Case', 'utf-16be'],
  ];
  for (const [bytes, text, encoding] of cases) expect(decodeText(bytesOf(...bytes))).toMatchObject({ text, encoding });
  expect(decodeText(bytesOf(0x61, 0x0d, 0x0a, 0xe4, 0x62), 'utf-8').problems).toEqual([expect.objectContaining({ code: 'encoding_broken', count: 1, line: 2 })]);
  expect(['a\r\nb', 'a\rb', 'a\nb'].map((text) => lineOf(text, text.length))).toEqual([2, 2, 2]);
});
