import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIRST_PRIORITIES, artefactId, type RequirementId } from '../artefacts/index.ts';
import { FilesBeside, attachmentId } from '../attachments/index.ts';
import { EMPTY_REQUIREMENT, type RequirementContent } from '../basis/index.ts';
import { choiceOf, writeOwn, type OwnField } from '../fields/index.ts';
import { testField } from '../fields/testField/index.ts';
import {
  GUESS_ALL, addedContent, baseOf, changedContent, entriesOf, broughtBackBy, exportSections, exportTable, fieldText, guessMapping, openConflicts, planImport, readFile, writeCsv, writeMarkdown, writeReqif, writeXlsx,
  type Entry, type ExistingRequirement, type ExportedRequirement, type SourceDocument,
} from './index.ts';
import { CSV, REQIF, bytesOf } from './testFiles.ts';

const LIMITS = { title: 300, name: 200, text: 200_000, relations: 500 };
const R = (n: number) => artefactId('requirement', n);

async function entriesIn(name: string, bytes: Uint8Array, fields: readonly OwnField[] = []): Promise<{ entries: readonly Entry[]; document: SourceDocument }> {
  const document = await readFile(name, bytes, GUESS_ALL);
  return { document, entries: entriesOf(document, guessMapping(document, 'p', 'file', fields, null), LIMITS, fields, FIRST_PRIORITIES).entries };
}

/** What the project holds after entries were taken in for the first time. */
function takenIn(entries: readonly Entry[]): ExistingRequirement[] {
  const ids = new Map(entries.map((e, i) => [e.key, R(i + 1)]));
  return entries.map((entry, i) => {
    const content = addedContent('file', entry, [], (key) => ids.get(key) ?? null);
    return { id: R(i + 1), content, parent: entry.parent ?? null, base: baseOf(entry, content, []), visibleParent: ids.get(entry.parent ?? '') ?? null, withdrawn: false };
  });
}

const edit = (list: readonly ExistingRequirement[], id: RequirementId, part: Partial<RequirementContent>) => list.map((e) => (e.id === id ? { ...e, content: { ...e.content, ...part } } : e));
const plan = (entries: readonly Entry[], existing: readonly ExistingRequirement[]) => planImport('file', entries, existing, []);

describe('the same source again', () => {
  const later = CSV.replace('Valid reading', 'A valid reading').replace('Office\nREQ-2', 'Board\nREQ-2').replace(/REQ-3[^\n]*\n/, 'REQ-4;New one;Words;low;REQ-1;\n');

  test('nothing changed: everything is the same, by its id and not by its place', async () => {
    const { entries } = await entriesIn('a.csv', bytesOf(CSV));
    const again = plan([...entries].reverse(), takenIn(entries));
    expect([again.added, again.changed, again.same.length, again.gone]).toEqual([[], [], 3, []]);
  });

  test('what the file changed is changed, what it lost is named and left alone', async () => {
    const { entries } = await entriesIn('a.csv', bytesOf(CSV));
    const next = plan((await entriesIn('a.csv', bytesOf(later))).entries, takenIn(entries));
    expect(next.added.map((a) => a.entry.key)).toEqual(['REQ-4']);
    expect(next.changed.map((c) => [c.id, c.fields])).toEqual([
      [R(1), [{ field: 'attribute:Owner', from: 'Office', to: 'Board' }]],
      [R(2), [{ field: 'title', from: 'Valid reading', to: 'A valid reading' }]],
    ]);
    expect(next.gone).toEqual([R(3)]);
  });

  test('what the project changed since stays; what both changed is to be chosen', async () => {
    const { entries } = await entriesIn('a.csv', bytesOf(CSV));
    const existing = edit(edit(takenIn(entries), R(2), { title: 'Reading is valid', text: 'From 0 to 9 m³' }), R(1), { title: 'All readings' });
    const next = plan((await entriesIn('a.csv', bytesOf(later))).entries, existing);
    const change = next.changed.find((c) => c.id === R(2))!;
    expect(change.conflicts).toEqual([{ field: 'title', base: 'Valid reading', mine: 'Reading is valid', theirs: 'A valid reading' }]);
    expect(openConflicts(next, new Map())).toHaveLength(1);
    const { content, base } = existing.find((e) => e.id === R(2))!;
    const settled = (side: 'mine' | 'theirs') => changedContent(content, change, base, new Map([['R-2 title', side]]), [], () => null);
    expect([settled('mine').title, settled('theirs').title, settled('theirs').text]).toEqual(['Reading is valid', 'A valid reading', 'From 0 to 9 m³']);
  });

  test('another place in the file moves it, one moved in the project stays there', async () => {
    const { entries } = await entriesIn('a.csv', bytesOf(CSV));
    const moved = (await entriesIn('a.csv', bytesOf(CSV.replace('must;REQ-1;', 'must;;')))).entries;
    expect(plan(moved, takenIn(entries)).changed.map((c) => [c.id, c.moves])).toEqual([[R(2), true]]);
    expect(plan(entries, takenIn(entries).map((e) => ({ ...e, parent: null }))).changed).toEqual([]);
  });
});

const OWN = [testField('Channel', 'choices', { choices: ['web', 'counter; open', 'a, b'] }), testField('Cost', 'number'), testField('Note', 'longText'), testField('Due', 'date'), testField('Agreed', 'yesNo'), testField('Priority', 'choice', { choices: ['A', 'B'] })];
/** Each own field with something in it that fits, or nothing. */
const own = fc
  .record({ channel: fc.subarray(['web', 'counter; open', 'a, b']), cost: fc.constantFrom('', '12,5', '-3', '0'), note: fc.constantFrom('', '=1+1', 'two\nlines', ' edges '), due: fc.constantFrom('', '2031-03-02'), agreed: fc.constantFrom('', 'yes', 'no'), priority: fc.constantFrom('', 'A', 'B') })
  .map((chosen) => Object.fromEntries(OWN.flatMap((field): [string, string | readonly string[]][] => {
    const text = chosen[field.id as keyof typeof chosen];
    const value = typeof text === 'string' ? writeOwn(field, text) : text.map((name) => choiceOf(field, name)!.id);
    return value === null || value.length === 0 ? [] : [[field.id, value]];
  })));
const title = fc.stringMatching(/^[ -~äçñ]{1,60}$/).filter((t) => t.trim() !== '');
const text = fc.array(fc.constantFrom('=1+1', '+a', '-b', '@c', "'=d", '"q"', 'a,b;c', 'line\nline', '💧', '  spaced ', '\tx', 'é', '<b>&amp;', '# no heading', 'above\n===', 'above\n---\n', '```\n# code\n```', '\\# kept', '- a\n- b'), { maxLength: 4 }).map((parts) => parts.join(' '));
const content: fc.Arbitrary<RequirementContent> = fc.record({
  title, text, module: text.map((t) => t.slice(0, 40)), source: title, attribute: text,
  type: fc.constantFrom('rule' as const, 'userStory' as const, 'quality' as const, 'apiOperation' as const),
  risk: fc.constantFrom('high' as const, 'low' as const), priority: fc.constantFrom('medium' as const, 'low' as const),
  rating: fc.constantFrom(null, { likelihood: 0, impact: 2 }), own,
}).map(({ attribute, ...rest }) => ({ ...EMPTY_REQUIREMENT, ...rest, attributes: attribute === '' ? [] : [{ id: 'Owner of it', value: attribute }] }));

function exported(contents: readonly RequirementContent[]): ExportedRequirement[] {
  return contents.map((c, i) => ({ id: R(i + 1), version: 1, parent: i % 3 === 0 ? null : R(i - (i % 3) + 1), depth: i % 3 === 0 ? 0 : 1, state: 'draft', content: c, design: null }));
}

async function written(format: 'csv' | 'xlsx' | 'md' | 'reqif', list: readonly ExportedRequirement[], table: string[][]): Promise<Uint8Array> {
  if (format === 'csv') return bytesOf(writeCsv(table));
  if (format === 'xlsx') return writeXlsx('Basis', table);
  return bytesOf(format === 'md' ? writeMarkdown('P', exportSections('p', list)) : writeReqif({ project: 'p', title: 'P', at: '2026-01-01T00:00:00Z', requirements: list, fields: OWN, sources: new Map(), objects: new Map() }));
}

function inProject(list: readonly ExportedRequirement[]): ExistingRequirement[] {
  return list.map(({ id, content: c, parent }) => ({ id, content: c, parent, visibleParent: parent, base: null, withdrawn: false }));
}

describe('written and read again', () => {
  test.each(['csv', 'xlsx', 'md', 'reqif'] as const)('%s changes nothing, and no cell is a formula', async (format) => {
    await fc.assert(
      fc.asyncProperty(fc.array(content, { minLength: 1, maxLength: 7 }), async (contents) => {
        const list = exported(contents);
        const table = exportTable('p', list, OWN, false);
        const bytes = await written(format, list, table);
        if (format === 'csv') expect(new TextDecoder().decode(bytes)).not.toMatch(/(?:^|,|\r\n)"?[=+@-]/);
        const { entries, document } = await entriesIn(`a.${format}`, bytes, OWN);
        expect(entries).toHaveLength(list.length);
        const again = planImport('file', entries, inProject(list), OWN, broughtBackBy(document.format));
        expect({ added: again.added, changed: again.changed }).toEqual({ added: [], changed: [] });
      }),
      { seed: 99, numRuns: format === 'xlsx' ? 40 : 200 },
    );
  });

  test('what is attached is named by where it lies, for reading only: read in again it changes nothing', async () => {
    const [dial, bill] = [{ id: attachmentId('a'.repeat(64)), name: 'dial [1].png', type: 'image/png' as const, size: 3 }, { id: attachmentId('b'.repeat(64)), name: 'bill.pdf', type: 'application/pdf' as const, size: 3 }];
    const list = exported([{ ...EMPTY_REQUIREMENT, title: 'Seen', text: 'As the dial.', attachments: [dial, bill] }, { ...EMPTY_REQUIREMENT, title: 'Bare' }, { ...EMPTY_REQUIREMENT, title: 'Again', attachments: [bill] }]);
    const beside = new FilesBeside();
    const table = exportTable('p', list, OWN, false, beside);
    const column = table[0]!.indexOf('attached files');
    expect(table.slice(1).map((row) => row[column])).toEqual(['files/R-1/dial [1].png\nfiles/R-1/bill.pdf', '', 'files/R-1/bill.pdf']);
    expect(beside.all.map((f) => f.path)).toEqual(['files/R-1/dial [1].png', 'files/R-1/bill.pdf']);
    expect(exportTable('p', list, OWN, true)[0]).not.toContain('attached files');
    const markdown = writeMarkdown('P', exportSections('p', list, new FilesBeside()));
    expect(markdown).toContain(String.raw`- Attached files: ![dial \[1\].png](<files/R-1/dial [1].png>) [bill.pdf](<files/R-1/bill.pdf>)`);
    for (const [name, bytes] of [['a.csv', bytesOf(writeCsv(table))], ['a.md', bytesOf(markdown)]] as const) {
      const { entries, document } = await entriesIn(name, bytes, OWN);
      const again = planImport('file', entries, inProject(list), OWN, broughtBackBy(document.format));
      expect([entries.length, again.added, again.changed]).toEqual([3, [], []]);
    }
  });

  test('a table from another project finds nothing of ours by its ids', async () => {
    const bytes = bytesOf(writeCsv(exportTable('other', exported([{ ...EMPTY_REQUIREMENT, title: 'Theirs' }]), [], false)));
    const { entries } = await entriesIn('a.csv', bytes);
    expect(entries[0]).toMatchObject({ key: 'R-1', ownId: null });
  });

  test('ReqIF keeps identifiers, types, attributes, hierarchy and relations', async () => {
    const { entries, document } = await entriesIn('a.reqif', bytesOf(REQIF));
    const existing = takenIn(entries);
    const byKey = new Map(entries.map((e, i) => [e.key, existing[i]!.id]));
    const requirements = existing.map((e, i): ExportedRequirement => ({ id: e.id, version: 1, parent: byKey.get(entries[i]?.parent ?? '') ?? null, depth: 0, state: 'draft', content: e.content, design: null }));
    const added: ExportedRequirement = { id: R(9), version: 1, parent: R(1), depth: 1, state: 'draft', content: { ...EMPTY_REQUIREMENT, title: 'Made "here" & now', text: '**bold** <b>\n\n| a | b |\n|---|---|\n| 1 | 2 |' }, design: null };
    const xml = writeReqif({
      project: 'p', title: 'P', at: '2026-01-01T00:00:00.000Z', requirements: [...requirements, added],
      fields: [],
      sources: new Map([['file', { types: document.types!, mapping: guessMapping(document, 'p', 'file', [], null) }]]),
      objects: new Map(entries.map((e) => [byKey.get(e.key)!, JSON.parse(e.facts)])),
    });
    const again = await entriesIn('b.reqif', bytesOf(xml));
    expect(again.document.problems).toEqual([]);
    expect(again.entries.map((e) => e.ownId)).toEqual(again.entries.map((e) => byKey.get(e.key) ?? R(9)));
    const [fresh, old] = [again.entries.filter((e) => e.key.includes('caderno')), again.entries.filter((e) => !e.key.includes('caderno'))];
    expect(old.map(({ line: _, fields, ...e }) => ({ ...e, ownId: null, version: null, fields: Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== '')) }))).toEqual(entries.map(({ line: _, ...e }) => e));
    expect(fresh.map((e) => [e.parent, e.fields.title, e.fields.text])).toEqual([['o-1', 'Made "here" & now', '**bold** \\<b>\n\n| a | b |\n| - | - |\n| 1 | 2 |']]);
    expect(again.document.types).toMatchObject({ header: document.types!.header.id === '' ? {} : { id: 'doc-7' }, specifications: [{ id: 'spec-1', name: 'Meter readings' }, {}] });
    expect(again.document.types!.datatypes.slice(0, 3)).toEqual(document.types!.datatypes);
    expect(plan(old, existing).changed).toEqual([]);
  });

  test('ReqIF with figures: they are there to be read, and imports leave them alone', async () => {
    const design = { conditions: [{ id: 'K-1', title: 'Odd; "one"' }], counts: { shown: 1, linked: 0, gap: 1, waiting: 0, suspect: 0, leftOut: 0 } };
    const requirements = exported([{ ...EMPTY_REQUIREMENT, title: 'One' }]).map((r) => ({ ...r, design }));
    const { document, entries } = await entriesIn('a.reqif', bytesOf(writeReqif({ project: 'p', title: 'P', at: '2026-01-01T00:00:00Z', requirements, fields: [], sources: new Map(), objects: new Map() })));
    expect([document.problems, document.records[0]?.cells.slice(-4, -2)]).toEqual([[], ['K-1 Odd; "one"', '50']]);
    expect(Object.keys(entries[0]?.fields ?? {}).filter((f) => f.includes('cover') || f.includes('condition'))).toEqual([]);
  });
});

test('fields are written as they are read', () => {
  const full = { ...EMPTY_REQUIREMENT, type: 'userStory' as const, rating: { likelihood: 0, impact: 2 } };
  expect(['type', 'likelihood', 'impact', 'link'].map((f) => fieldText(full, f as 'type', []))).toEqual(['user story', '1', '3', '']);
});

test('a column called like a field of the project’s own fills it; what does not fit is named and left; a removed field is a column like any other', async () => {
  const csv = bytesOf('ID,Title,Cost,Channel,Gone\nA-1,One,"12,5",web\nA-2,Two,much,by phone,kept\nA-3,Three,,');
  const fields = [...OWN, testField('Gone', 'text', { removed: true })];
  const document = await readFile('a.csv', csv, GUESS_ALL);
  const mapping = guessMapping(document, 'p', 'file', fields, null);
  expect(mapping.columns).toEqual({ ID: 'id', Title: 'title', Cost: 'own:cost', Channel: 'own:channel', Gone: 'attribute' });
  const { entries, problems } = entriesOf(document, mapping, LIMITS, fields, FIRST_PRIORITIES);
  expect(problems.map((p) => (p.code === 'value_unknown' ? [p.line, p.column, p.field, p.value] : p.code))).toEqual([[3, 'Channel', 'Channel', 'by phone'], [3, 'Cost', 'Cost', 'much']]);
  const [first, second, third] = entries.map((entry) => addedContent('file', entry, fields, () => null));
  expect([first!.own, second!.own, second!.attributes, third!.own]).toEqual([{ cost: '12.5', channel: ['web'] }, {}, [{ id: 'Gone', value: 'kept' }], {}]);
  const before: ExistingRequirement = { id: R(1), content: { ...first!, own: { ...first!.own, note: 'ours' } }, parent: null, visibleParent: null, base: baseOf(entries[0]!, first!, fields), withdrawn: false };
  const later = entriesOf(await readFile('a.csv', bytesOf('ID,Title,Cost,Channel,Gone\nA-1,One,13,'), GUESS_ALL), mapping, LIMITS, fields, FIRST_PRIORITIES).entries;
  const [change] = planImport('file', later, [before], fields).changed;
  expect(change?.fields).toEqual([{ field: 'own:channel', from: 'web', to: '' }, { field: 'own:cost', from: '12.5', to: '13' }]);
  expect(changedContent(before.content, change!, before.base, new Map(), fields, () => null).own).toEqual({ cost: '13', note: 'ours' });
});

test('relations that cannot be told apart, or are too much, are named and left out; the requirement is taken in', () => {
  const relations = [{ id: '', kind: 'k', to: 'B' }, { id: 'r1', kind: 'k', to: 'B' }, { id: 'r1', kind: 'other', to: 'B' }, { id: 'r2', kind: 'x'.repeat(201), to: 'B' }, { id: 'r3', kind: 'k', to: 'B' }, { id: 'r4', kind: 'k', to: 'B' }];
  const record = (id: string, more: object = {}) => ({ line: 7, cells: [id, `Title ${id}`], place: { id, parent: null }, relations: [], ...more });
  const document = { format: 'reqif' as const, columns: ['id', 'title'], records: [record('A', { relations }), record('B')], sheets: [], problems: [], types: null };
  const { entries, problems } = entriesOf(document, { source: 's', columns: { id: 'id', title: 'title' } }, { ...LIMITS, relations: 2 }, [], FIRST_PRIORITIES);
  expect(entries.map((e) => e.relations.map((r) => r.id))).toEqual([['r1', 'r3'], []]);
  expect(problems.map((p) => (p.code === 'relation_left_out' ? [p.line, p.severity, p.id, p.why] : p.code))).toEqual([[7, 'warning', '', 'without_id'], [7, 'warning', 'r1', 'id_doubled'], [7, 'warning', 'r2', 'too_long'], [7, 'warning', 'r4', 'too_many']]);
});
