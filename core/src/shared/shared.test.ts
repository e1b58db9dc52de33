import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, isPlainStep, isUse, parametersIn, rowId, stepId, textsOfStep, type CaseContent, type Parameter, type Row, type Step } from '../cases/index.ts';
import { EMPTY_SHARED, changedConstants, configurationValues, countExpanded, findCircle, findRuns, openCase, openInstance, openedText, putBack, surfacedParameters, takeOut, keyOfUse, type InstanceChoice, type Constant, type Library, stepsUsed, type SharedContent, type Used, type UsedSteps } from './index.ts';
import { C, LAST, S, anyName, args, callOf, graph, libraryOf, line, newUse, parameter, readOut, root, row } from './testGraphs.ts';

const onlyActions = (lines: string[][]): string[][] => lines.map((l) => l.map((t) => t.split(' => ')[0] ?? ''));

describe('values', () => {
  const signIn = { 4: { parameters: [parameter('user', 'guest'), parameter('place')], steps: [line('a', 'sign in as <user> in <place>')] } };
  test('are looked for in the row, the argument, the default, the constants', () => {
    const library = libraryOf(signIn);
    const say = (given: Record<string, string>, own: Parameter[] = []) => onlyActions(readOut({ steps: [newUse('u', 4, given)], parameters: own }, library, new Map([['place', 'the office'], ['user', 'never']])))[0]?.[0];
    expect(say({})).toBe('sign in as guest in the office');
    expect(say({ user: 'the <who>' }, [parameter('who', 'clerk')])).toBe('sign in as the clerk in the office');
    // By equal name, without an argument.
    expect(say({}, [parameter('user', 'treasurer')])).toBe('sign in as treasurer in the office');
    // Declared above without a value: nothing is given, and the default comes before a constant.
    expect(say({}, [parameter('user')])).toBe('sign in as guest in the office');
  });
  test('of a called case: one row, every row, mine', () => {
    const library = libraryOf({}, { 31: { parameters: [parameter('x', 'default')], rows: [row('one', { x: '1' }), row('two', { x: '2' }), row('open', {})], steps: [line('a', 'enter <x>')] } });
    const say = (rows: Extract<Step, { kind: 'call' }>['rows'], given: Record<string, string> = {}) => onlyActions(readOut({ steps: [callOf('c', 31, rows, given)] }, library)).map((l) => l[0]);
    expect(say({ kind: 'own', row: rowId('two') }, { x: 'mine' })).toEqual(['enter 2']);
    expect(say({ kind: 'every' }, { x: 'mine' })).toEqual(['enter 1', 'enter 2', 'enter mine']);
    expect(say({ kind: 'mine' }, { x: 'mine' })).toEqual(['enter mine']);
    expect(say({ kind: 'mine' })).toEqual(['enter default']);
    expect(say({ kind: 'own', row: rowId('gone') })).toEqual(['enter default']);
  });
  test('surface through levels, in any script; what a row or an argument fixes does not', () => {
    const library = libraryOf(
      { 1: { parameters: [parameter('имя'), parameter('b')], steps: [line('a', '<имя> <b>')] }, 2: { parameters: [parameter('c')], steps: [newUse('u', 1, { b: '<c>' })] } },
      { 3: { parameters: [parameter('d')], rows: [row('r', { d: '1' })], steps: [newUse('v', 2), line('x', '<d>')] } },
    );
    const names = (steps: Step[]) => surfacedParameters({ steps, parameters: [] }, library).map((s) => s.parameter.name);
    expect(names([callOf('c', 3, { kind: 'mine' })])).toEqual(['d', 'c', 'имя']);
    expect(names([callOf('c', 3, { kind: 'every' }, { c: 'given' })])).toEqual(['имя']);
    expect(onlyActions(readOut({ parameters: [parameter('имя', 'Ж'), parameter('c', 'C')], steps: [callOf('c', 3, { kind: 'every' })] }, library))).toEqual([['Ж C', '1']]);
  });
  test('every row inside every row multiplies, and the counts say so without making them', () => {
    const rows = Array.from({ length: 1000 }, (_, i) => row(`r${i}`, { x: String(i) }));
    const leaf = { parameters: [parameter('x')], rows, steps: [line('a', '<x>')] };
    const library = libraryOf({}, { 1: leaf, 2: { ...leaf, steps: [callOf('c', 1, { kind: 'every' }), line('b', '<x>')] }, 3: { ...leaf, steps: [callOf('d', 2, { kind: 'every' })] } });
    const content: CaseContent = { ...EMPTY_CASE, ...leaf, steps: [callOf('e', 3, { kind: 'every' })] };
    expect(countExpanded(content, library)).toEqual({ instances: 1000n ** 4n, steps: 2n, depth: 3 });
    const opened = openCase(content, library);
    if (opened.kind !== 'opened') throw new Error(opened.kind);
    expect(opened.bind(1000n ** 4n - 2n).rows.map((r) => r?.name)).toEqual(['r999', 'r999', 'r999', 'r998']);
    expect(() => opened.bind(1000n ** 4n)).toThrow(RangeError);
  });
  test('opened at an instance its values stay, whatever else is opened; a row is found where it runs first', () => {
    const content: CaseContent = { ...EMPTY_CASE, parameters: [parameter('x')], rows: ['a', 'b', 'c'].map((n) => row(n, { x: n.toUpperCase() })), steps: [line('s', 'go <x>'), callOf('k', 1, { kind: 'every' })] };
    const library = libraryOf({}, { 1: { parameters: [parameter('y')], rows: [row('p', { y: '1' }), row('q', { y: '2' })], steps: [line('t', '<y>')] } });
    const at = (choice: InstanceChoice) => {
      const opened = openInstance(content, library, new Map(), choice);
      if (opened.kind !== 'opened') throw new Error(opened.kind);
      return { number: opened.instance?.number, read: () => opened.steps.map((s) => (s.kind === 'step' ? openedText(s.scope.open(s.step.action)) : s.kind)) };
    };
    const [second, rowC, beyond] = [at({ kind: 'number', number: 1n }), at({ kind: 'row', row: content.rows[2]!.id }), at({ kind: 'number', number: 99n })];
    expect([second.number, rowC.number, beyond.number, at({ kind: 'row', row: null }).number, at({ kind: 'number', number: -5n }).number]).toEqual([1n, 4n, 5n, 0n, 0n]);
    expect([second.read(), rowC.read(), beyond.read(), second.read()]).toEqual([['go A', '2'], ['go C', '1'], ['go C', '2'], ['go A', '2']]);
    expect(openInstance({ ...content, runs: { kind: 'chosen', rows: [] } }, library, new Map(), { kind: 'row', row: null })).toMatchObject({ kind: 'opened', instances: 0n, instance: null });
  });
  test('fifty levels deep; a block used a thousand times; beyond the limits it is refused', () => {
    const chain = (depth: number) => libraryOf(Object.fromEntries(Array.from({ length: depth }, (_, i) => [i + 1, { parameters: [parameter('x')], steps: i + 1 < depth ? [newUse('u', i + 2)] : [line('a', 'at the end <x>')] }])));
    expect(onlyActions(readOut({ parameters: [parameter('x', '7')], steps: [newUse('u', 1)] }, chain(50)))).toEqual([['at the end 7']]);
    expect(openCase({ ...EMPTY_CASE, steps: [newUse('u', 1)] }, chain(150)).kind).toBe('tooDeep');
    const block = libraryOf({ 1: { steps: Array.from({ length: 60 }, (_, i) => line(`l${i}`, `step ${i}`)) } });
    const often = (times: number) => openCase({ ...EMPTY_CASE, steps: Array.from({ length: times }, (_, i) => newUse(`u${i}`, 1)) }, block);
    expect(often(800)).toMatchObject({ kind: 'opened' });
    expect(often(1000)).toEqual({ kind: 'tooLong', steps: 60_000n, most: 50_000 });
  });
});

test('what is gone is said at its place', () => {
  expect(readOut({ steps: [line('a', 'x'), newUse('u', 9)] }, new Map())).toEqual([['x => ', 'gone']]);
});

/** An argument in which something has no value. */
const OPEN = '\0';

/** The judge: the rules said once more, the slow and obvious way, by recursion over environments. */
function byHand(content: CaseContent, library: Library): string[][] {
  type Look = (name: string) => string | null;
  /** What texts here may name, and what is handed on by name. */
  type Env = { readonly here: Look; readonly on: Look };
  const fill = (t: string, env: Look): string => t.replaceAll(/\\<|<([^<>]+)>/g, (whole, name: string | undefined) => (name === undefined ? '<' : (env(name) ?? whole)));
  const envOf = (own: readonly Parameter[], cells: Readonly<Record<string, string>>, above: Look): Env => {
    const on: Look = (name) => {
      const p = own.find((x) => x.name === name);
      return p === undefined ? above(name) : (cells[p.id] || null) ?? above(name) ?? (p.default || null);
    };
    return { on, here: (name) => (own.some((x) => x.name === name) ? on(name) : null) };
  };
  const run = (steps: readonly Step[], env: Env): string[][] => {
    let runs: string[][] = [[]];
    for (const step of steps) {
      let lines: string[][];
      if (!isUse(step)) lines = [[[step.action, step.expected].map((t) => fill(t, env.here)).join(' => ')]];
      else {
        const used = stepsUsed(library, step);
        if (used === undefined) lines = [['gone']];
        else {
          const above: Look = (name) => {
            const given = step.arguments.find((a) => a.id === name)?.value;
            if (given === undefined) return env.on(name);
            const names = [...given.matchAll(/<([^<>]+)>/g)].map((m) => m[1] ?? '');
            return names.some((n) => (env.here(n) ?? OPEN) === OPEN) ? OPEN : fill(given, env.here);
          };
          const rows: (Row | null)[] = step.kind !== 'call' || used.kind !== 'case' || step.rows.kind === 'mine' ? [null] : step.rows.kind === 'every' ? (used.content.rows.length > 0 ? [...used.content.rows] : [null]) : [used.content.rows.find((r) => r.id === rowId('r0')) ?? null];
          lines = rows.flatMap((r) => run(used.content.steps, envOf(used.content.parameters, r?.cells ?? {}, above)));
        }
      }
      runs = runs.flatMap((before) => lines.map((l) => [...before, ...l]));
    }
    return runs;
  };
  return (content.rows.length > 0 ? content.rows : [null]).flatMap((r) => run(content.steps, envOf(content.parameters, r?.cells ?? {}, () => null)));
}

describe('on random graphs of uses', () => {
  test('opening equals inlining by hand, and the counts equal what is made', () => {
    fc.assert(
      fc.property(root, graph, (content, library) => {
        const whole: CaseContent = { ...EMPTY_CASE, ...content };
        const made = readOut(whole, library);
        expect(anyName(made)).toEqual(anyName(byHand(whole, library)));
        const count = countExpanded(whole, library);
        expect([count.instances, count.steps]).toEqual([BigInt(made.length), BigInt(made[0]?.length ?? 0)]);
      }),
      { numRuns: 400 },
    );
  });
  test('taking out changes no instance, and putting back leads to the same again', () => {
    fc.assert(
      fc.property(root, graph, fc.nat(2), fc.integer({ min: 1, max: 3 }), (content, library, from, length) => {
        const whole: CaseContent = { ...EMPTY_CASE, ...content };
        const before = readOut(whole, library);
        const ids = whole.steps.slice(from, from + length).map((s) => s.id);
        const taken = takeOut(whole, ids);
        fc.pre(taken !== null && ids.length > 0);
        if (taken === null) return;
        const use = newUse('use', 9);
        const shared: SharedContent = { ...EMPTY_SHARED, steps: taken.steps, parameters: taken.parameters };
        const after: CaseContent = { ...whole, steps: taken.rest.toSpliced(taken.at, 0, use) };
        const more: Library = new Map<string, Used>([...library, [S(9), { kind: 'shared', id: S(9), version: 1, withdrawn: false, content: shared }]]);
        expect(readOut(after, more)).toEqual(before);
        if (!isUse(use)) return;
        const back = putBack(after, use, shared, more, () => stepId('new'));
        expect(back.kind === 'done' && back.content).toEqual(whole);
      }),
      { numRuns: 400 },
    );
  });
  test('putting any use back changes no instance', () => {
    fc.assert(
      fc.property(root, graph, (content, library) => {
        const whole: CaseContent = { ...EMPTY_CASE, ...content };
        const use = whole.steps.filter(isUse).find((u) => u.kind === 'shared');
        fc.pre(use !== undefined);
        const used = use === undefined ? undefined : library.get(keyOfUse(use));
        if (use === undefined || used?.kind !== 'shared') return;
        // A name that is not declared where it stands means nothing there, and may mean something where it comes to stand.
        const isWhole = (w: Pick<SharedContent, 'parameters'>, steps: readonly Step[]): boolean => steps.flatMap(textsOfStep).flatMap(parametersIn).every((name) => w.parameters.some((p) => p.name === name));
        fc.pre(isWhole(used.content, used.content.steps) && isWhole(whole, [use]));
        let n = 0;
        const back = putBack(whole, use, used.content, library, () => stepId(`n${(n += 1)}`));
        fc.pre(back.kind === 'done');
        expect(back.kind === 'done' && anyName(readOut(back.content, library))).toEqual(anyName(readOut(whole, library)));
        expect(back.kind === 'done' && new Set(back.content.steps.map((s) => s.id)).size).toBe(whole.steps.length - 1 + used.content.steps.length);
      }),
      { numRuns: 600 },
    );
  });
  test('a circle is found wherever it is, with its path; where there is none, none is', () => {
    fc.assert(
      fc.property(root, graph, fc.integer({ min: 1, max: LAST }), fc.integer({ min: 1, max: LAST }), (content, library, from, to) => {
        expect(findCircle(C(99), content, library)).toBeNull();
        const target = library.get(S(from));
        if (target?.kind !== 'shared') throw new Error('The graph has shared steps');
        const bent = new Map<string, UsedSteps>([...library, [S(from), { ...target, content: { ...target.content, steps: [...target.content.steps, newUse('bent', to)] } }]]);
        const reaches = (at: string, seen: Set<string>): boolean => at === S(from) || (!seen.has(at) && (seen.add(at), (bent.get(at)?.content.steps ?? []).filter(isUse).some((u) => reaches(keyOfUse(u), seen))));
        const circle = findCircle(S(from), bent.get(S(from))?.content ?? EMPTY_SHARED, bent);
        expect(circle !== null).toBe(reaches(S(to), new Set()));
        if (circle !== null) {
          expect(circle[0]).toBe(circle.at(-1));
          circle.slice(1).forEach((id, i) => expect((bent.get(circle[i] ?? '')?.content.steps ?? []).filter(isUse).map(keyOfUse)).toContain(id));
        }
      }),
      { numRuns: 300 },
    );
  });
});

test('what follows the agreed version of something leads back to it, whatever is agreed of it now', () => {
  const agreed = { ...newUse('a', 4), pinned: 'agreed' } as const;
  const library: Library = new Map<string, Used>([...libraryOf({ 4: { steps: [] }, 5: { steps: [agreed] } }), ['S-4@agreed', { kind: 'shared', id: S(4), version: 1, withdrawn: false, content: EMPTY_SHARED }]]);
  expect(findCircle(S(4), { steps: [agreed] }, library)).toEqual([S(4), S(4)]);
  expect(findCircle(S(4), { steps: [newUse('u', 5)] }, library)).toEqual([S(4), S(5), S(4)]);
  expect(findCircle(S(6), { steps: [newUse('u', 5), agreed] }, library)).toBeNull();
});

test('steps that are no run are not taken out', () => {
  const steps = [line('1', 'a'), line('2', 'b'), line('3', 'c')];
  expect(takeOut({ steps, parameters: [] }, [stepId('1'), stepId('3')])).toBeNull();
  expect(takeOut({ steps, parameters: [] }, [stepId('3'), stepId('2')])?.steps.filter(isPlainStep).map((s) => s.action)).toEqual(['b', 'c']);
});

test('the same run is found with other values in it, and one that is nearly the same with what differs', () => {
  const run = [line('1', 'Sign in as <user>', '<user> is greeted'), line('2', 'Open the ledger of <day>')];
  const others = [
    [line('a', 'Wait'), line('b', 'Sign in as a clerk', 'a clerk is greeted'), line('c', 'Open the ledger of <day>'), line('d', 'Sign in as <who>', '<who> is greeted'), line('e', 'Open the ledger of today')],
    [line('a', 'Sign in as a clerk', 'a reader is greeted'), line('b', 'Open the ledger of today')],
    [line('a', 'Sign in as <user>', '<user> is greeted'), line('b', 'Open the big ledger of <day>')],
    [line('a', 'Sign in as <user>', '<user> is greeted'), newUse('u', 1)],
  ].map((steps, i) => ({ id: C(i + 1), content: { steps } }));
  expect(findRuns(others, run, null)).toEqual([
    { id: C(1), steps: ['b', 'c'], kind: 'same', arguments: args({ user: 'a clerk' }), differing: [] },
    { id: C(1), steps: ['d', 'e'], kind: 'same', arguments: args({ user: '<who>', day: 'today' }), differing: [] },
    // One name cannot stand for two texts: the same it is not.
    { id: C(2), steps: ['a', 'b'], kind: 'near', arguments: [], differing: others[1]?.content.steps.map((step, place) => ({ place, step })) },
    { id: C(3), steps: ['a', 'b'], kind: 'near', arguments: [], differing: [{ place: 1, step: line('b', 'Open the big ledger of <day>') }] },
  ]);
  expect(findRuns(others, run, C(1)).map((r) => r.id)).toEqual([C(2), C(3)]);
  expect(findRuns(others, [newUse('u', 1)], null)).toEqual([]);
});

test('constants that stand for another value are named, new and gone ones too; words and the order of configurations say nothing', () => {
  const constant = (name: string, value: string, more: Partial<Constant> = {}): Constant => ({ id: name, name, value, secret: false, description: '', others: {}, ...more });
  const before = [constant('a', '1', { others: { x: '2', y: '3' } }), constant('b', '1'), constant('gone', '1'), constant('b', 'never counts')];
  const after = [constant('new', '1'), constant('b', '1', { description: 'said' }), constant('a', '1', { others: { y: '3', x: '2' } })];
  expect(changedConstants(before, after)).toEqual(['gone', 'new']);
  expect(changedConstants(before, [constant('gone', '1'), constant('b', '2'), constant('a', '1', { others: { x: '2' } })])).toEqual(['a', 'b']);
  expect([configurationValues({ name: 'Counter', factors: [{ name: 'device', value: 'computer' }, { name: 'role', value: 'clerk' }] }), configurationValues({ name: 'clerk', factors: [{ name: 'role', value: 'clerk' }] })]).toEqual(['computer, clerk', '']);
});
