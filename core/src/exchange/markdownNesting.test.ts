import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fromMarkdown } from 'mdast-util-from-markdown';
import type { Nodes } from 'mdast';
import { markdownNesting } from './markdownNesting.ts';
import { GUESS_ALL, readFile } from './index.ts';
import { xhtmlOfMarkdown } from './xhtml.ts';
import { pace } from '../../../scripts/pace.mjs';

/** How deep lists and quotations are nested, from the tree of a real reader: the judge. */
function nestingByTree(node: Nodes): number {
  const own = node.type === 'blockquote' || node.type === 'listItem' ? 1 : 0;
  return own + Math.max(0, ...('children' in node ? node.children.map((child) => nestingByTree(child as Nodes)) : []));
}

describe('the nesting of a text', () => {
  test('is never told less than it is', () => {
    const part = fc.constantFrom('> ', '>', '- ', '* ', '+ ', '1. ', '12) ', '  ', '    ', '\t', 'x', '# ', '---', '```', '\n', '\n', ' ');
    fc.assert(
      fc.property(fc.array(part, { maxLength: 40 }).map((parts) => parts.join('')), (text) => {
        expect(markdownNesting(text)).toBeGreaterThanOrEqual(nestingByTree(fromMarkdown(text)));
      }),
      { numRuns: 2_000, seed: 41 },
    );
  });
  test('of ordinary texts is small', () => {
    expect(markdownNesting('# A\n\nText - with a dash, 2. not a list.\n\n- one\n  - two\n    1. three\n\n> said')).toBe(3);
  });
  test('is counted in time that grows with the text only', () => {
    const began = performance.now();
    markdownNesting(`${'> '.repeat(200_000)}\n`.repeat(5));
    markdownNesting(`${'1'.repeat(1_000_000)}\n${'- '.repeat(500_000)}`);
    expect(performance.now() - began).toBeLessThan(1_500 * pace());
  });
});

describe('what is nested too deep', () => {
  const deep = `${'>'.repeat(4_000)} x`;
  test('is refused when it is to be read', async () => {
    const document = await readFile('deep.md', new TextEncoder().encode(`# A\n\n${deep}`), GUESS_ALL);
    expect([document.records, document.problems]).toEqual([[], [expect.objectContaining({ code: 'markdown_too_deep', severity: 'error', limit: 100 })]]);
  });
  test('is written out as it stands, at once', () => {
    const began = performance.now();
    expect(xhtmlOfMarkdown('&\n'.concat(deep))).toBe(`<xhtml:pre>&amp;&#10;${'&gt;'.repeat(4_000)} x</xhtml:pre>`);
    expect(performance.now() - began).toBeLessThan(200 * pace());
    expect(xhtmlOfMarkdown('> said')).toContain('<xhtml:blockquote>');
  });
});
