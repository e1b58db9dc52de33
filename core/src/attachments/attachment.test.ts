import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ATTACHMENT_TYPES, ENDINGS, attachmentForm, isAttachmentType, safeFileName } from './attachment.ts';

test.each([
  ['dial.png', 'image/png', 'dial.png'],
  ['Dial.PNG', 'image/png', 'Dial.PNG'],
  ['dial.png', 'application/pdf', 'dial.png.pdf'],
  ['../../etc/passwd', 'text/plain', 'passwd.txt'],
  [String.raw`C:\Users\me\readings.csv`, 'text/plain', 'readings.csv'],
  ['page.html', 'text/plain', 'page.html.txt'],
  // Read from right to left it would look like a picture.
  ['bill\u202Egnp.exe', 'application/zip', 'bill gnp.exe.zip'],
  ['  .. ', 'image/gif', 'file.gif'],
  ['.htaccess', 'text/plain', 'htaccess.txt'],
  ['a\u0000b\n"c".md', 'text/plain', 'a b c.md'],
  ['', 'application/gzip', 'file.gz'],
] as const)('%j of %s is kept as %j', (name, type, kept) => {
  expect(safeFileName(name, type)).toBe(kept);
});

test('whatever a file is called, its name leads nowhere else, tells its type, and stays what it is when it is made safe again', () => {
  const any = fc.oneof(fc.string({ unit: 'binary', maxLength: 300 }), fc.array(fc.constantFrom('..', '/', '\\', '.', 'a', 'é', '\u202e', '😀', '.exe', '.png', ' '), { maxLength: 200 }).map((parts) => parts.join('')));
  fc.assert(
    fc.property(any, fc.constantFrom(...ATTACHMENT_TYPES), (name, type) => {
      const safe = safeFileName(name, type);
      expect(safe).not.toMatch(/[\u0000-\u001f\u007f\u202a-\u202e\u2066-\u2069/\\]|^\./u);
      expect(ENDINGS[type] as readonly string[]).toContain(safe.slice(safe.lastIndexOf('.') + 1).toLowerCase());
      expect([...safe].length).toBeLessThanOrEqual(220);
      expect(safeFileName(safe, type)).toBe(safe);
    }),
    { numRuns: 2_000 },
  );
});

test('pictures and PDF are seen in place, and what was kept before types were noted is a picture', () => {
  expect([null, 'image/webp', 'application/pdf', 'text/plain', 'application/zip'].map((type) => attachmentForm(type as never))).toEqual(['picture', 'picture', 'pdf', 'file', 'file']);
  expect(['image/svg+xml', 'text/html', 'application/x-msdownload', 'toString', 'image/png'].map(isAttachmentType)).toEqual([false, false, false, false, true]);
});
