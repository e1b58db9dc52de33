import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { artefactId, type CaseId } from '../artefacts/index.ts';
import { attachmentId } from '../attachments/index.ts';
import { EMPTY_CASE, cloneCase, findDependencyCircle, mergeCases, newCover, newRow, parameterId, plainStep, rowId, saySame, stepId, withCallsMoved, type CaseContent, type Parameter, type Row, type Step } from './index.ts';

const C = (n: number): CaseId => artefactId('case', n);
const parameter = (id: string, name: string, value = ''): Parameter => ({ id: parameterId(id), name, type: 'text', default: value, description: `the ${name}` });
const row = (id: string, name: string, cells: Record<string, string>): Row => newRow(rowId(id), name, cells);

const content: CaseContent = {
  ...EMPTY_CASE,
  title: 'Member signs in',
  objective: 'A member, not members, and <member>',
  steps: [plainStep(stepId('s1'), 'Sign in as <member>', 'The member is greeted'), { kind: 'shared', id: stepId('s2'), shared: 'S-1', pinned: null, arguments: [{ id: 'member', value: 'a member of <member>' }] }],
  parameters: [parameter('p1', 'member', 'any member')],
  rows: [row('r1', 'a member', { p1: 'MEMBER 7' }), row('r2', 'none', { p1: '(missing)' })],
  covers: [newCover(artefactId('condition', 1), 2)],
  tags: ['smoke'],
  owner: 'Inês V.',
};

describe('a clone', () => {
  const origin = { id: C(3), version: 2 };
  test('has words replaced everywhere but in names of parameters, and says where it comes from', () => {
    const clone = cloneCase(origin, content, ['rows', 'tags'], [{ from: 'member', to: 'clerk' }, { from: 'clerk', to: 'reader' }]);
    expect(clone).toEqual({
      ...content,
      title: 'Clerk signs in',
      objective: 'A clerk, not members, and <member>',
      steps: [plainStep(stepId('s1'), 'Sign in as <member>', 'The clerk is greeted'), { ...content.steps[1], arguments: [{ id: 'member', value: 'a clerk of <member>' }] }],
      parameters: [{ ...parameter('p1', 'member', 'any clerk'), description: 'the clerk' }],
      rows: [row('r1', 'a clerk', { p1: 'Clerk 7' }), row('r2', 'none', { p1: '(missing)' })],
      covers: [],
      owner: '',
      origin,
    });
  });
  test('with everything and nothing replaced is the same but for its origin', () => {
    expect(cloneCase(origin, content, ['rows', 'covers', 'tags', 'owner', 'defects', 'dependsOn'], [{ from: '', to: 'x' }])).toEqual({ ...content, origin });
    // Signs of patterns are plain characters.
    expect(cloneCase(origin, { ...content, title: 'a.b (c)' }, [], [{ from: 'a.b', to: '$&' }]).title).toBe('$& (c)');
  });
});

describe('two cases made into one', () => {
  const kept: CaseContent = { ...EMPTY_CASE, title: 'Kept', steps: [plainStep(stepId('s1'), 'enter <x>')], parameters: [parameter('p1', 'x', '5')], rows: [row('r1', 'low', { p1: '1' })], covers: [newCover(artefactId('condition', 1), 1)] };
  const gone: CaseContent = {
    ...EMPTY_CASE,
    title: 'Gone',
    steps: [plainStep(stepId('s1'), 'type <x>, <y>', 'fine')],
    parameters: [parameter('p1', 'y'), parameter('p9', 'x')],
    rows: [row('r1', 'low', { p1: 'why', p9: '2' }), row('r2', 'again', { p9: '1', p1: '' })],
    covers: [{ ...newCover(artefactId('condition', 2), 1), fields: [{ id: 'f' as never, parameter: parameterId('p1') }], expects: [stepId('s1')] }, newCover(artefactId('condition', 1), 7)],
  };
  const ids = () => {
    let n = 0;
    return () => `n${(n += 1)}`;
  };
  test('keeps every row once, under parameters of equal name, and what either covers', () => {
    const merged = mergeCases({ id: C(1), content: { ...kept, dependsOn: [{ id: C(9) }, { id: C(5) }] } }, { id: C(9), content: { ...gone, dependsOn: [{ id: C(1) }, { id: C(6) }] } }, 'both', ids());
    expect(merged.content).toMatchObject({
      title: 'Kept',
      steps: [{ id: 's1', action: 'enter <x>' }, { id: 'n3', action: 'type <x>, <y>' }],
      parameters: [{ id: 'p1', name: 'x', default: '5' }, { id: 'n1', name: 'y' }],
      rows: [row('r1', 'low', { p1: '1' }), row('n2', 'low 2', { n1: 'why', p1: '2' })],
      covers: [newCover(artefactId('condition', 1), 1), { id: 'K-2', fields: [{ id: 'f', parameter: 'n1' }], expects: ['n3'] }],
    });
    expect(merged.content.dependsOn).toEqual([{ id: C(5) }, { id: C(6) }]);
    expect([...merged.rows]).toEqual([['r1', 'n2'], ['r2', 'r1']]);
    const calls: Step[] = [C(8), C(9)].map((id) => ({ kind: 'call', id: stepId('c'), case: id, pinned: null, rows: { kind: 'own', row: rowId('r2') }, arguments: [] }));
    expect(withCallsMoved(calls, C(9), C(1), merged.rows)).toEqual([calls[0], { ...calls[1], case: C(1), rows: { kind: 'own', row: 'r1' } }]);
  });
  test('drops steps only when told to, and with them what they spoke for; one without rows brings the one it was', () => {
    const merged = mergeCases({ id: C(1), content: { ...kept, rows: [] } }, { id: C(9), content: gone }, 'kept', ids());
    expect(merged.content.steps).toEqual(kept.steps);
    expect(merged.content.covers[1]?.expects).toEqual([]);
    expect(merged.content.rows.map((r) => [r.name, r.cells])).toEqual([['Kept', { p1: '5' }], ['low', { n1: 'why', p1: '2' }], ['again', { p1: '1' }]]);
    expect([saySame(kept.steps, gone.steps), saySame(kept.steps, [plainStep(stepId('other'), 'enter <x>')])]).toEqual([false, true]);
  });
});

test('files of both cases stand in the one that is kept, each once; a clone has those of its origin', () => {
  const having = (...ids: string[]): CaseContent => ({ ...EMPTY_CASE, title: 'T', attachments: ids.map((id) => ({ id: attachmentId(id), name: `${id}.png`, type: 'image/png', size: 1 })) });
  const merged = mergeCases({ id: C(1), content: having('a', 'b') }, { id: C(2), content: having('b', 'c') }, 'kept', () => 'n');
  expect(merged.content.attachments.map((a) => a.name)).toEqual(['a.png', 'b.png', 'c.png']);
  expect(cloneCase({ id: C(1), version: 3 }, having('a'), [], [{ from: 'a', to: 'z' }]).attachments).toEqual(having('a').attachments);
});

test('a value that stood as a default is not lost when the case that is kept has another', () => {
  const one = (id: number, value: string, cells: Record<string, string>[] = []): { id: CaseId; content: CaseContent } => ({ id: C(id), content: { ...EMPTY_CASE, title: `Case ${id}`, parameters: [parameter(`p${id}`, 'meter', value)], rows: cells.map((c, i) => row(`r${id}${i}`, `row ${id}${i}`, c)) } });
  let n = 0;
  const rowsOf = (kept: ReturnType<typeof one>, gone: ReturnType<typeof one>) => mergeCases(kept, gone, 'kept', () => `n${(n += 1)}`).content.rows.map((r) => [r.name, r.cells]);
  expect(rowsOf(one(1, 'M-1'), one(2, 'M-2'))).toEqual([['Case 1', { p1: 'M-1' }], ['Case 2', { p1: 'M-2' }]]);
  expect(rowsOf(one(1, 'M-1'), one(2, 'M-1'))).toEqual([]);
  expect(rowsOf(one(1, 'M-1', [{}]), one(2, 'M-2', [{}, { p2: 'M-3' }]))).toEqual([['row 10', {}], ['row 20', { p1: 'M-2' }], ['row 21', { p1: 'M-3' }]]);
});

test('circles of dependencies are found wherever they are, with their path; where there is none, none is', () => {
  const edges = fc.array(fc.tuple(fc.integer({ min: 1, max: 7 }), fc.integer({ min: 1, max: 7 })), { maxLength: 12 });
  let circles = 0;
  fc.assert(
    fc.property(edges, (list) => {
      const dependsOn = (id: CaseId): CaseId[] => list.filter(([from]) => C(from) === id).map(([, to]) => C(to));
      // The judge: everything that can be reached, then whether any of it reaches itself.
      const reached = (from: CaseId): Set<CaseId> => {
        const all = new Set<CaseId>();
        const go = (id: CaseId): void => dependsOn(id).forEach((to) => all.has(to) || (all.add(to), go(to)));
        go(from);
        return all;
      };
      const path = findDependencyCircle(C(1), dependsOn);
      expect(path !== null).toBe([C(1), ...reached(C(1))].some((id) => reached(id).has(id)));
      if (path === null) return;
      circles += 1;
      expect(path[0]).toBe(path.at(-1));
      path.slice(1).forEach((id, i) => expect(dependsOn(path[i] ?? id)).toContain(id));
    }),
  );
  expect(circles).toBeGreaterThan(10);
});
