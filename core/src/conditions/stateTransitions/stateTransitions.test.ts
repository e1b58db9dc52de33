import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ModelJudge, countItems, coverageItems, eventId, stateId, statePaths, stateProblems, transitionId, walk, type StateTransitionsModel } from '../index.ts';

/** Transitions as words: `A x B` leads from A by x to B, `A x[g] B` under a guard. The first state is the initial one. */
function machine(level: StateTransitionsModel['level'], invalidPairs: boolean, ...transitions: readonly string[]): StateTransitionsModel {
  const read = transitions.map((t) => /^(\w+) (\w+)(?:\[(.*)\])? (\w+)$/.exec(t) ?? []);
  const names = [...new Set(read.flatMap(([, from = '', , , to = '']) => [from, to]))];
  return {
    kind: 'stateTransitions',
    states: names.map((name, i) => ({ id: stateId(name), name, initial: i === 0, final: false, place: null })),
    events: [...new Set(read.map(([, , event = '']) => event))].map((name) => ({ id: eventId(name), name })),
    transitions: read.map(([, from = '', event = '', guard = '', to = ''], i) => ({ id: transitionId(`t${i + 1}`), from: stateId(from), event: eventId(event), to: stateId(to), guard, action: '' })),
    level,
    invalidPairs,
  };
}
const items = (model: StateTransitionsModel) => coverageItems({ title: '', polarity: 'both', model });
const allKeys = (model: StateTransitionsModel) => new Set(items(model).map((i) => i.key));
const named = (model: StateTransitionsModel) => items(model).map((i) => `${i.name} | ${i.extent}`);
const events = (...names: readonly string[]) => names.map((event) => ({ event: eventId(event), transition: null }));

const threeStates = ['A x B', 'B y C', 'B z A'] as const;

describe('states A, B, C; A-x→B, B-y→C, B-z→A', () => {
  test('are 3 transitions, 3 pairs and 6 invalid pairs', () => {
    expect(named(machine('switch0', false, ...threeStates))).toEqual(['x | A → B', 'y | B → C', 'z | B → A']);
    expect(named(machine('switch1', false, ...threeStates))).toEqual(['x, then y | A → B → C', 'x, then z | A → B → A', 'z, then x | B → A → B']);
    expect(named(machine('switch0', true, ...threeStates)).slice(3)).toEqual(['y | in A', 'z | in A', 'x | in B', 'x | in C', 'y | in C', 'z | in C']);
  });
  test('one path x z x y shows all transitions and all pairs; one path per invalid pair', () => {
    for (const level of ['switch0', 'switch1'] as const) {
      const model = machine(level, false, ...threeStates);
      const { paths, fewest, unreachable } = statePaths(model, allKeys(model));
      expect(paths.map((p) => p.transitions.map((t) => t.event))).toEqual([['x', 'z', 'x', 'y']]);
      expect([fewest, unreachable]).toEqual([true, []]);
    }
    const model = machine('switch0', true, ...threeStates);
    const { paths } = statePaths(model, allKeys(model));
    expect(paths.slice(1).map((p) => [...p.transitions.map((t) => t.event), p.refused])).toEqual([['y'], ['z'], ['x', 'x'], ['x', 'y', 'x'], ['x', 'y', 'y'], ['x', 'y', 'z']]);
  });
  test('an event without a transition counts for its invalid pair and ends the walk', () => {
    const model = machine('switch0', true, ...threeStates);
    expect(walk(model, stateId('A'), events('x', 'x', 'y')).map((s) => s.kind)).toEqual(['transition', 'refused', 'notWalked']);
    const { showing } = new ModelJudge({ title: '', polarity: 'both', model }, 99);
    const list = items(model);
    const shown = (...names: readonly string[]) => (showing.kind === 'path' ? showing.shown(null, events(...names)).map((place) => `${list[place]?.name} ${list[place]?.extent}`) : []);
    expect(shown('x', 'x', 'y')).toEqual(['x A → B', 'x in B']);
    expect(shown()).toEqual([]);
  });
});

test('guards: a choice must be named, and guards that overlap are reported', () => {
  const model = machine('switch0', false, 'A pay[in full] A', 'A pay[in part] B', 'B pay A', 'B wait[long] C', 'B wait C');
  expect(walk(model, stateId('A'), events('pay'))).toEqual([{ kind: 'undecided', state: 'A', event: 'pay' }]);
  expect(walk(model, stateId('A'), [{ event: eventId('pay'), transition: transitionId('t2') }, ...events('pay')]).map((s) => s.kind)).toEqual(['transition', 'transition']);
  expect(stateProblems(model)).toEqual([
    { code: 'guards_overlap', state: 'B', event: 'wait', transitions: ['t4', 't5'] },
    { code: 'dead_end', state: 'C' },
  ]);
});

test('a diagram without an initial state, with two, with what cannot be reached', () => {
  const model = machine('switch0', false, ...threeStates, 'D x A');
  expect(stateProblems({ ...model, states: model.states.map((s) => ({ ...s, final: true })) })).toEqual([{ code: 'unreachable', state: 'D' }]);
  const none = { ...model, states: model.states.map((s) => ({ ...s, initial: false })) };
  expect(stateProblems(none)[0]).toEqual({ code: 'no_initial' });
  expect(statePaths(none, allKeys(none))).toMatchObject({ paths: [], unreachable: [...allKeys(none)] });
  expect(stateProblems({ ...model, states: model.states.map((s) => ({ ...s, initial: true })) })[0]).toMatchObject({ code: 'initial_twice' });
  expect(stateProblems({ ...model, states: [] })).toEqual([{ code: 'no_states' }]);
});

test('a model whose sequences explode is counted, not made', () => {
  const dense = Array.from({ length: 20 }, (_, i) => Array.from({ length: 20 }, (_, j) => `S${i} e${j} S${j}`)).flat();
  const model = machine('switch4', false, ...dense);
  expect(countItems(model)).toBe(20n ** 6n);
  const judge = new ModelJudge({ title: 'Dense', polarity: 'both', model }, 20_000);
  expect(judge.showing).toEqual({ kind: 'refused', items: 64_000_000n, most: 20_000 });
  expect(judge.items.map((i) => i.extent)).toEqual(['64000000 items, over the project’s limit of 20000']);
});

const letters = ['A', 'B', 'C'];
const anyMachine = fc.record({
  level: fc.constantFrom('states' as const, 'switch0' as const, 'switch1' as const, 'switch2' as const),
  invalid: fc.boolean(),
  arrows: fc.uniqueArray(fc.tuple(fc.constantFrom(...letters), fc.constantFrom('x', 'y', 'z'), fc.constantFrom(...letters)), { minLength: 1, maxLength: 7, selector: ([from, event]) => from + event }),
}).map(({ level, invalid, arrows }) => machine(level, invalid, ...arrows.map((a) => a.join(' '))));

/** All walks of up to `most` events from the initial state, as the events and what the definition says they pass. */
function allWalks(model: StateTransitionsModel, most: number): string[][] {
  const step = (walks: string[][]): string[][] => walks.flatMap((w) => model.events.map((e) => [...w, e.id]));
  let [all, last]: [string[][], string[][]] = [[], [[]]];
  for (let i = 0; i < most; i += 1) {
    last = step(last);
    all = [...all, ...last];
  }
  return all;
}

/** What events show, by the definition, as `name | extent` of items. */
function shownByDefinition(model: StateTransitionsModel, walked: readonly string[]): Set<string> {
  const length = ['states', 'switch0', 'switch1', 'switch2'].indexOf(model.level);
  const passed: { event: string; from: string; to: string }[] = [];
  let state: string = model.states[0]?.name ?? '';
  const shown = new Set<string>();
  if (length === 0) shown.add(`${state} | `);
  for (const event of walked) {
    const taken = model.transitions.find((t) => t.from === state && t.event === event);
    if (taken === undefined) {
      if (model.invalidPairs) shown.add(`${event} | in ${state}`);
      break;
    }
    passed.push({ event, from: state, to: taken.to });
    state = taken.to;
    if (length === 0) shown.add(`${state} | `);
    const run = passed.slice(-length);
    if (length > 0 && run.length === length) shown.add(`${run.map((r) => r.event).join(', then ')} | ${[run[0]?.from, ...run.map((r) => r.to)].join(' → ')}`);
  }
  return shown;
}

test('items, evidence and paths against all short walks tried one by one', () => {
  let paths = 0;
  fc.assert(
    fc.property(anyMachine, (model) => {
      const judge = new ModelJudge({ title: '', polarity: 'both', model }, 9_999);
      const list = judge.items.map((i) => `${i.name} | ${i.extent}`);
      expect(BigInt(list.length)).toBe(countItems(model));
      const everShown = new Set<string>();
      for (const walked of allWalks(model, 5)) {
        const shown = judge.showing.kind === 'path' ? judge.showing.shown(null, events(...walked)).map((place) => list[place] ?? '') : [];
        const expected = shownByDefinition(model, walked);
        expect(new Set(shown)).toEqual(expected);
        for (const name of expected) everShown.add(name);
      }
      const made = statePaths(model, allKeys(model));
      const keys = judge.items.map((i) => i.key);
      expect(new Set(made.unreachable.map((key) => list[keys.indexOf(key)]))).toEqual(new Set(list.filter((name) => !everShown.has(name))));
      for (const path of made.paths) {
        const shown = shownByDefinition(model, [...path.transitions.map((t) => t.event), ...(path.refused === null ? [] : [path.refused])]);
        expect(path.shows.map((key) => list[keys.indexOf(key)]).filter((name) => !shown.has(name ?? ''))).toEqual([]);
        paths += 1;
      }
    }),
    { numRuns: 150 },
  );
  expect(paths).toBeGreaterThan(100);
});

test('the paths over all transitions are the fewest and then the shortest, against trying all sets of walks', () => {
  let tried = 0;
  fc.assert(
    fc.property(anyMachine, (any) => {
      const model: StateTransitionsModel = { ...any, level: 'switch0', invalidPairs: false };
      const wanted = allKeys(model);
      const { paths, unreachable } = statePaths(model, wanted);
      if (unreachable.length > 0 || model.transitions.length > 5) return;
      const [fewest, shortest] = cheapestWalks(model);
      expect([paths.length, paths.reduce((n, p) => n + p.transitions.length, 0)]).toEqual([fewest, shortest]);
      tried += 1;
    }),
    { numRuns: 400 },
  );
  expect(tried).toBeGreaterThan(30);
});

/** Breadth first over (state, transitions passed), where beginning anew is dearer than anything. */
function cheapestWalks(model: StateTransitionsModel): [number, number] {
  const start = model.states[0]?.id;
  const full = 2 ** model.transitions.length - 1;
  let best: [number, number] = [Infinity, Infinity];
  const cost = new Map<string, [number, number]>();
  const queue: { state: string | undefined; passed: number; walks: number; length: number }[] = [{ state: start, passed: 0, walks: 1, length: 0 }];
  const better = (a: readonly [number, number], b: readonly [number, number]) => a[0] < b[0] || (a[0] === b[0] && a[1] < b[1]);
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    const key = `${at.state} ${at.passed}`;
    const known = cost.get(key);
    if (known !== undefined && !better([at.walks, at.length], known)) continue;
    cost.set(key, [at.walks, at.length]);
    if (at.passed === full) {
      if (better([at.walks, at.length], best)) best = [at.walks, at.length];
      continue;
    }
    model.transitions.forEach((t, i) => {
      if (t.from === at.state) queue.push({ ...at, state: t.to, passed: at.passed | (1 << i), length: at.length + 1 });
    });
    if (at.state !== start) queue.push({ ...at, state: start, walks: at.walks + 1 });
  }
  return best;
}
