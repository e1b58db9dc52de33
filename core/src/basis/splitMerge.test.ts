import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { attachmentId, type Attachment } from '../attachments/index.ts';
import { EMPTY_QUESTION, EMPTY_REQUIREMENT, absorbedContent, mergedContent, mergedText, movedQuestion, partWithWords, splitContents, type QuestionSubject, type RequirementContent } from './index.ts';

const dismissal = (id: string, sentence: string) => ({ id, rule: 'openList' as const, words: 'etc', sentence, reason: '', by: '', at: '' });
const imported: RequirementContent = {
  ...EMPTY_REQUIREMENT,
  title: 'Whole',
  text: 'A reading is whole. It is stored, etc.',
  module: 'readings',
  origin: { source: 'handbook', id: 'H-1', link: '' },
  attributes: [{ id: 'status', value: 'agreed' }],
  relations: [{ id: 'needs-R-9', kind: 'needs', to: 'R-9' }],
  dismissals: [dismissal('d1', 'It is stored, etc.')],
};

describe('split', () => {
  const [first, second] = splitContents(imported, 'R-1', [{ title: 'Whole', text: 'A reading is whole.' }, { title: 'Stored', text: 'It is  stored,\netc.' }]);
  test('the first part stays what it was imported as; a later one is new and points back', () => {
    expect(first).toMatchObject({ title: 'Whole', origin: { id: 'H-1' }, relations: imported.relations, module: 'readings' });
    expect(second).toMatchObject({ title: 'Stored', origin: null, attributes: imported.attributes, relations: [...imported.relations, { kind: 'split from', to: 'R-1' }], module: 'readings' });
  });
  test('what was said of a sentence goes with the sentence', () => expect([first?.dismissals, second?.dismissals]).toEqual([[], imported.dismissals]));
  test('words are looked for in the parts; what stands in none goes with the first', () => {
    const parts = [{ title: '', text: 'a b' }, { title: '', text: 'b c' }];
    expect(['c', 'b', 'gone', ''].map((words) => partWithWords(parts, words))).toEqual([1, 0, 0, 0]);
  });
});

test('files stand with both parts of what is split, and once in what is merged', () => {
  const file = (n: number): Attachment => ({ id: attachmentId(`${n}`), name: `${n}.pdf`, type: 'application/pdf', size: n });
  const having = (...files: Attachment[]): RequirementContent => ({ ...imported, attachments: files });
  expect(splitContents(having(file(1)), 'R-1', [{ title: 'a', text: '' }, { title: 'b', text: '' }]).map((c) => c.attachments)).toEqual([[file(1)], [file(1)]]);
  expect(mergedContent(having(file(1), file(2)), [having(file(2), file(3)), having(file(1))], { title: 'T', text: '' }).attachments).toEqual([file(1), file(2), file(3)]);
});

describe('merge', () => {
  const relation = fc.record({ id: fc.constantFrom('r1', 'r2', 'r3'), kind: fc.constantFrom('needs', 'refines'), to: fc.constantFrom('R-7' as const, 'R-8' as const) });
  const content = fc.record({ attributes: fc.uniqueArray(fc.record({ id: fc.constantFrom('a', 'b', 'c'), value: fc.constantFrom('1', '2') }), { selector: (a) => a.id }), relations: fc.uniqueArray(relation, { selector: (r) => r.id }) }).map((part): RequirementContent => ({ ...EMPTY_REQUIREMENT, ...part }));
  test('nothing the absorbed ones say is lost, each thing stands once, and ids do not repeat', () => {
    fc.assert(
      fc.property(content, fc.array(content, { minLength: 1, maxLength: 3 }), (kept, absorbed) => {
        const merged = mergedContent(kept, absorbed, { title: 'T', text: 'x' });
        const said = (c: RequirementContent) => c.relations.map((r) => `${r.kind} ${r.to}`);
        expect(new Set(said(merged))).toEqual(new Set([kept, ...absorbed].flatMap(said)));
        expect(new Set(merged.relations.map((r) => r.id)).size).toBe(merged.relations.length);
        expect(merged.relations.slice(0, kept.relations.length)).toEqual(kept.relations);
        for (const id of ['a', 'b', 'c']) expect(merged.attributes.find((a) => a.id === id)).toEqual([kept, ...absorbed].flatMap((c) => c.attributes).find((a) => a.id === id));
      }),
    );
  });
  test('texts stand one after the other under their titles; an absorbed one says where it went', () => {
    expect(mergedText([{ title: 'A', text: 'one\n' }, { title: 'B', text: ' two' }])).toBe('one\n\n**B**\n\ntwo');
    expect(absorbedContent(imported, 'R-5').relations.at(-1)).toMatchObject({ kind: 'merged into', to: 'R-5' });
    expect(absorbedContent(absorbedContent(imported, 'R-5'), 'R-5').relations).toHaveLength(2);
  });
  test('a question that asks about both asks about the one that is left, once', () => {
    const about = (id: `R-${number}`): QuestionSubject => ({ kind: 'requirement', id, words: '', holds: true });
    const moved = movedQuestion({ ...EMPTY_QUESTION, about: [about('R-1'), about('R-2'), { kind: 'condition', id: 'K-1', items: [], holds: false }] }, 'R-2', 'R-1');
    expect(moved.about.map((s) => s.id)).toEqual(['R-1', 'K-1']);
  });
});
