import { expect, test } from '@jest/globals';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfm } from 'micromark-extension-gfm';
import { comparisonMarkdown, comparisonSheets, type Comparison, type Frozen } from './index.ts';

const item = (id: Frozen['id'], version: number, more: Partial<Frozen> = {}): Frozen => ({ id, version, meaningSince: version, state: 'draft', title: `Title of ${id}`, module: 'Meters', ...more });
const comparison: Comparison = {
  title: 'Pilot', before: 'B-1 Before', after: 'now', figures: [['gaps', '3', '1']],
  changes: [
    { kind: 'changed', from: item('R-1', 1), to: item('R-1', 4, { title: '# Not a *heading* | <b>' }), meant: true },
    { kind: 'changed', from: item('K-1', 1), to: item('K-1', 2), meant: false },
    { kind: 'added', to: item('C-2', 1, { module: '' }) },
    { kind: 'gone', from: item('S-1', 2) },
    { kind: 'state', from: item('C-1', 1), to: item('C-1', 1, { state: 'agreed' }) },
  ],
  settings: '', reached: [{ id: 'C-7', title: 'Agreed', through: ['S-1', 'D-1'] }], more: 0,
};

test('as sheets: a row a change with both sides, the figures, and what is reached', () => {
  const [changes, figures, reached, ...none] = comparisonSheets(comparison);
  expect(changes?.rows.slice(1)).toEqual([
    ['changed', 'R-1', '# Not a *heading* | <b>', 'Meters', 'v1', 'v4', 'draft', 'draft', 'yes'],
    ['changed', 'K-1', 'Title of K-1', 'Meters', 'v1', 'v2', 'draft', 'draft', 'no'],
    ['added', 'C-2', 'Title of C-2', '', '', 'v1', '', 'draft', ''],
    ['withdrawn or gone', 'S-1', 'Title of S-1', 'Meters', 'v2', '', 'draft', '', ''],
    ['stands otherwise', 'C-1', 'Title of C-1', 'Meters', 'v1', 'v1', 'draft', 'agreed', ''],
  ]);
  expect([figures?.rows, reached?.rows[1], none]).toEqual([[['figure', 'B-1 Before', 'now'], ['gaps', '3', '1']], ['C-7', 'Agreed', 'S-1, D-1'], []]);
  expect(comparisonSheets({ ...comparison, settings: 'the depths' })[0]?.rows.at(-1)).toEqual(['changed', '', 'Of the settings: the depths']);
  expect(comparisonSheets({ ...comparison, reached: [], more: 7 }).map((s) => s.rows.at(-1))).toEqual([['and 7 more, which are not told here'], ['gaps', '3', '1']]);
});

test('as Markdown by module; what titles say is text, whatever it looks like', () => {
  const text = comparisonMarkdown(comparison);
  expect(text.split('\n').filter((l) => l.startsWith('- '))).toEqual([
    '- **added** C-2 Title of C-2 (v1)',
    String.raw`- **changed** R-1 \# Not a \*heading\* \| \<b\> (v1 → v4)`,
    '- **changed** K-1 Title of K-1 (v1 → v2, means the same)',
    '- **withdrawn or gone** S-1 Title of S-1 (v2)',
    '- **stands otherwise** C-1 Title of C-1 (v1 → v1, draft → agreed)',
    '- C-7 Agreed, through S-1, D-1',
  ]);
  const read = fromMarkdown(text, { extensions: [gfm()] });
  expect([read.children.filter((c) => c.type === 'heading').length, JSON.stringify(read).includes('"type":"html"')]).toEqual([4, false]);
  expect(comparisonMarkdown({ ...comparison, changes: [], reached: [] })).toContain('Nothing changed.');
  const constants = comparisonMarkdown({ ...comparison, changes: [], settings: 'the constants (<a_b>)' });
  expect(constants).toContain(String.raw`Of the settings: the constants (\<a\_b\>)` + '\n\nNo artefact changed.');
  expect(comparisonMarkdown({ ...comparison, more: 7 })).toContain('\nand 7 more');
});
