import { describe, expect, it } from '@jest/globals';
import { newCover, newRow, parameterId, rowId } from '../cases/index.ts';
import { fieldId } from '../conditions/index.ts';
import { seededRandom } from '../generation/index.ts';
import { examplesCount, examplesTable, withColumnRenamed, withExamplesTable, type ExamplesTable } from './examplesTable.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { withNumbers, withText } from './identities.ts';
import { outlineOf } from './scenario.ts';
import { rowsTakenFrom, withRowsTaken } from './takenRows.ts';

let made = 0;
const newId = (): string => `i${(made += 1)}`;
const feature = (text: string): FeatureContent => withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, text, newId), null);
const outline = (content: FeatureContent) => content.parts.find((p) => p.number === 1)!.id;
const parameter = (name: string) => ({ id: parameterId(name), name, type: 'text' as const, default: '', description: '' });

const TEXT = `Feature: f
  Scenario Outline: reading <reading>
    When the clerk enters <reading>
    Then it is <answer>

    Examples: low
      what they are

      # names first
      | case  | reading | answer     |
      | below |      -1 | a \\| b    |
      # the edge
      | zero  |       0 |            |

    @late
    Examples:
`;
const table = (content: FeatureContent, at = 0): ExamplesTable => {
  const found = examplesTable(content, outline(content), at);
  if (found === null) throw new Error('It has that many');
  return found;
};
const change = (content: FeatureContent, how: (t: ExamplesTable) => ExamplesTable, at = 0) => withExamplesTable(content, outline(content), at, how(table(content, at)), newId);

describe('examples as a table of data', () => {
  it('has columns by their names, rows by their lines, and what they are called where no step uses the first column', () => {
    const content = feature(TEXT);
    const lines = content.parts.flatMap((p) => p.lines);
    const idOf = (words: string) => lines.find((l) => l.text.includes(words))?.id;
    expect(examplesCount(content, outline(content))).toBe(2);
    expect(table(content).parameters.map((p) => p.id)).toEqual(['reading', 'answer']);
    expect(table(content).rows.map((r) => [r.id, r.name, r.cells])).toEqual([
      [idOf('below'), 'below', { reading: '-1', answer: 'a | b' }],
      [idOf('zero'), 'zero', { reading: '0' }],
    ]);
    expect(table(content, 1)).toEqual({ parameters: [], rows: [] });
    expect(examplesTable(content, outline(content), 2)).toBeNull();
  });

  it('a cell that changes leaves the others, comments and ids as they are; nothing changed is the very same', () => {
    const content = feature(TEXT);
    expect(change(content, (t) => ({ ...t, rows: [...t.rows] }))).toBe(content);
    const result = change(content, (t) => ({ ...t, rows: t.rows.map((r) => (r.name === 'zero' ? { ...r, cells: { ...r.cells, answer: 'x\\y|' } } : r)) }));
    expect(textOf(result)).toBe(TEXT.replace('| answer     |', '| answer |').replace('a \\| b    |', 'a \\| b |').replace('|       0 |            |', '|       0 | x\\\\y\\| |'));
    expect(result.parts.flatMap((p) => p.lines.map((l) => l.id))).toEqual(content.parts.flatMap((p) => p.lines.map((l) => l.id)));
  });

  it('rows are added, moved and taken out with the comments above them; a table is begun below its keyword', () => {
    const content = feature(TEXT);
    const result = change(content, (t) => ({ ...t, rows: [...t.rows.toReversed(), newRow(rowId('mine'), 'top', { reading: '99999' })] }));
    expect(textOf(result).split('\n').slice(8, 14).map((l) => l.trim().replaceAll(/ +/g, ' '))).toEqual(['# names first', '| case | reading | answer |', '# the edge', '| zero | 0 | |', '| below | -1 | a \\| b |', '| top | 99999 | |']);
    expect(result.parts.flatMap((p) => p.lines).find((l) => l.text.includes('top'))?.id).toBe('mine');
    expect(textOf(change(content, (t) => ({ ...t, rows: [] })))).toContain('      | case | reading | answer |\n      # the edge\n');
    const begun = change(content, () => ({ parameters: [parameter('reading')], rows: [newRow(rowId('r1'), '', { reading: '4' })] }), 1);
    expect(textOf(begun).endsWith('    @late\n    Examples:\n      | reading |\n      |       4 |\n')).toBe(true);
    expect(textOf(change(begun, (t) => ({ ...t, rows: t.rows.map((r) => ({ ...r, name: 'four' })) }), 1))).toContain('| case | reading |\n      | four |       4 |');
  });

  it('a column is renamed in all its tables, the steps, the name and what is covered', () => {
    const bare = feature(TEXT.replace('    Examples:\n', '    Examples:\n      | reading |\n      | 7       |\n'));
    const content = { ...bare, parts: bare.parts.map((p) => ({ ...p, covers: p.number === 1 ? [{ ...newCover('K-1', 1), fields: [{ id: fieldId('f'), parameter: parameterId('reading') }], outcome: parameterId('answer') }] : [] })) };
    const result = withColumnRenamed(content, outline(content), 'reading', ' dial ')!;
    const [read] = outlineOf(result).scenarios;
    expect([read?.name, read?.steps.map((s) => s.text), read?.examples.map((e) => e.header)]).toEqual(['reading <dial>', ['the clerk enters <dial>', 'it is <answer>'], [['case', 'dial', 'answer'], ['dial']]]);
    expect(result.parts[1]?.covers).toMatchObject([{ fields: [{ parameter: 'dial' }], outcome: 'answer' }]);
    expect(['answer', 'a|b', '<x', ' '].map((name) => withColumnRenamed(content, outline(content), 'reading', name))).toEqual([null, null, null, null]);
  });

  it.each([1, 2, 3, 4])('is what was put there, whatever that is (seed %i)', (seed) => {
    const random = seededRandom(seed);
    const one = <T>(...of: readonly T[]): T => of[random(of.length)] as T;
    let content = feature(TEXT.replaceAll('\n', one('\n', '\r\n')));
    for (let turn = 0; turn < 40; turn += 1) {
      const text = (): string => one('', 'x', 'a|b', 'back\\slash', 'line\nbreak', '"q"', '-1', '<reading>', '#');
      const edit = one<(t: ExamplesTable) => ExamplesTable>(
        (t) => ({ ...t, rows: t.rows.toSpliced(random(t.rows.length + 1), random(2), newRow(rowId(newId()), text().replace('\n', ' '), Object.fromEntries(t.parameters.flatMap((p) => (one(true, false) ? [[p.id, text()]] : []))))) }),
        (t) => ({ ...t, rows: t.rows.map((r) => (one(true, false) ? { ...r, cells: { ...r.cells, answer: text() } } : r)) }),
        (t) => ({ ...t, parameters: t.parameters.length > 3 ? t.parameters.slice(0, 2) : [...t.parameters, parameter(`more ${turn}`)] }),
        (t) => ({ ...t, rows: t.rows.toReversed() }),
      );
      const wanted = edit(table(content));
      content = withExamplesTable(content, outline(content), 0, wanted, newId);
      const said = ({ parameters, rows }: ExamplesTable) => [parameters.map((p) => p.name), rows.map((r) => [r.id, r.name, parameters.map((p) => r.cells[p.id] ?? '')])];
      expect(said(table(content))).toEqual(said(wanted));
      expect(outlineOf(content).problems).toEqual([]);
      expect(textOf(content)).toMatch(/# the edge/);
    }
  });

  it('takes the rows of a data set, says so in the file, and takes them again where it changed', () => {
    const content = feature('Feature: f\n  Scenario Outline: o\n    When <reading> is given\n    Then <says>\n\n    Examples:\n      | case | reading | says |\n      | low  | 0       | ok   |\n');
    const set = (version: number, ...rows: [string, string][]) => ({ id: 'D-3' as const, version, parameters: [{ id: parameterId('p1'), name: 'reading' }], rows: rows.map(([name, cell]) => newRow(rowId(`r-${name}`), name, { p1: cell })) });
    expect(rowsTakenFrom(content, outline(content), 0)).toBeNull();
    const taken = withRowsTaken(content, outline(content), 0, set(2, ['low', '-1'], ['high', '9']), newId);
    expect(textOf(taken)).toContain('    Examples:\n      # Rows of D-3 v2\n      | case | reading | says |\n      | low  |      -1 | ok   |\n      | high |       9 |      |\n');
    expect(rowsTakenFrom(taken, outline(taken), 0)).toEqual({ id: 'D-3', version: 2 });
    expect(table(taken).rows[0]?.id).toBe(table(content).rows[0]?.id);
    const again = withRowsTaken(taken, outline(taken), 0, set(5, ['high', '99'], ['low', '-1']), newId);
    expect(textOf(again)).toContain('      # Rows of D-3 v5\n      | case | reading | says |\n      | high |      99 |      |\n      | low  |      -1 | ok   |\n');
    expect(textOf(again).match(/Rows of/g)).toHaveLength(1);
  });
});
