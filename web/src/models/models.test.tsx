/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import type { DecisionTableModel, Field, Rule, StateTransitionsModel } from '@caderno/core/conditions';
import { cleanup, render, screen, within } from '@testing-library/react';
import type { ElkNode } from 'elkjs/lib/elk-api.js';

afterEach(cleanup);

/** What is laid out, and how: the library works in a worker, which is not here. */
const asked: ElkNode[] = [];
jest.unstable_mockModule('../drawing/index.ts', () => ({
  pathThrough: (points: readonly { x: number; y: number }[]) => points.map((p) => `${p.x},${p.y}`).join(' '),
  layOutGraph: (graph: ElkNode) => {
    asked.push(graph);
    const isRight = graph.layoutOptions?.['elk.direction'] === 'RIGHT';
    return Promise.resolve({
      ...graph, width: isRight ? 2_000 : 400, height: isRight ? 100 : 420,
      children: graph.children?.map((child, i) => ({ ...child, x: isRight ? i * 200 : 20, y: isRight ? 20 : i * 100 })),
      edges: graph.edges?.map((edge) => ({ ...edge, sections: [{ id: 's', startPoint: { x: 0, y: 0 }, endPoint: { x: 10, y: 10 } }] })),
    });
  },
}));
const { NumberLine, PrintedTable, StateBoxDrawn, StateLine, layOut, ruleText } = await import('./index.ts');

const rule = (id: string, more: Partial<Rule> = {}): Rule => ({ id, entries: {}, actions: {}, impossible: false, ...more });
const TABLE = {
  kind: 'decisionTable',
  conditions: [{ id: 'c', name: 'Paid', values: ['yes', 'no', 'partly'].map((value) => ({ id: value, value, aliases: [] })) }],
  actions: [{ id: 'a', name: 'Send' }],
  rules: [rule('1', { entries: { c: ['yes', 'partly'] }, actions: { a: 'a receipt' } }), rule('2', { entries: { c: ['yes', 'no', 'partly'] } }), rule('3', { impossible: true }), ...Array.from({ length: 7 }, (_, i) => rule(`m${i}`))],
} as unknown as DecisionTableModel;

test('a table on paper stands in bands of eight rules, each with the names of its lines; “any” is a dash, also where all are named', () => {
  expect(TABLE.rules.slice(0, 3).map((r) => [0, 1, 2].map((line) => ruleText(TABLE, r, line)))).toEqual([['yes / partly', 'a receipt', ''], ['–', '', ''], ['–', '', '✕']]);
  render(<PrintedTable model={TABLE} standingOf={() => null} />);
  const [first, second] = [screen.getByRole('table', { name: 'Rules from 1' }), screen.getByRole('table', { name: 'Rules from 9' })];
  expect([first, second].map((t) => within(t).getAllByRole('columnheader').map((h) => h.textContent.trim()))).toEqual([['rule', '1', '2', '3', '4', '5', '6', '7', '8'], ['rule', '9', '10']]);
  expect([first, second].map((t) => within(t).getAllByRole('rowheader').map((h) => h.textContent))).toEqual([['Paid', 'Send', 'cannot occur'], ['Paid', 'Send', 'cannot occur']]);
});

const interval = (id: string, from: string, to: string) => ({ id, name: id, from, to, valid: true, outcome: '' });
const field = (intervals: readonly object[]): Field => ({ id: 'f', name: 'reading', type: { kind: 'whole' }, unit: 'm³', required: true, intervals, choices: [], patterns: [], classes: [] }) as unknown as Field;

test('a number line says where its intervals leave a hole or overlap, and nothing where they meet', () => {
  const words = (intervals: readonly object[]): (string | null)[] => {
    cleanup();
    render(<NumberLine field={field(intervals)} items={[]} />);
    return [...screen.getByRole('img', { name: 'Number line' }).querySelectorAll('text')].map((t) => t.textContent).filter((t) => t === 'hole' || t === 'overlap');
  };
  expect(words([interval('low', '0', '4'), interval('high', '5', '9')])).toEqual([]);
  expect(words([interval('low', '0', '4'), interval('high', '6', '9')])).toEqual(['hole']);
  expect(words([interval('low', '0', '4'), interval('high', '4', '9')])).toEqual(['overlap']);
  // Where it cannot be moved there is nothing to be moved by.
  expect(screen.queryByRole('slider')).toBeNull();
});

const state = (id: string, place: { x: number; y: number } | null = null) => ({ id, name: `State ${id}`, initial: id === 'a', final: id === 'c', place });
const states = (places: Readonly<Record<string, { x: number; y: number }>> = {}): StateTransitionsModel =>
  ({
    kind: 'stateTransitions', level: 'states', invalidPairs: false, states: ['a', 'b', 'c'].map((id) => state(id, places[id] ?? null)), events: [{ id: 'e', name: 'go' }],
    transitions: [['a', 'b'], ['b', 'c'], ['b', 'b']].map(([from, to], i) => ({ id: `t${i}`, from, event: 'e', to, guard: '', action: '' })),
  }) as unknown as StateTransitionsModel;

test('of two layouts the one that can be shown larger is taken; a state put by hand stays there, and its lines follow it', async () => {
  asked.length = 0;
  const free = await layOut(states());
  expect(asked.map((g) => g.layoutOptions?.['elk.direction'])).toEqual(['RIGHT', 'DOWN']);
  expect([free.width, free.states.map((s) => s.y)]).toEqual([400, [0, 100, 200]]);
  asked.length = 0;
  const put = await layOut(states({ b: { x: 300, y: 300 } }));
  expect(asked).toHaveLength(1);
  expect(put.states.find((s) => s.id === 'b')).toMatchObject({ x: 300, y: 300 });
  // Both lines that touch it are drawn anew, with points of their own; its loop stands above it.
  expect(put.lines.map((l) => l.points.length)).toEqual([4, 4, 4]);
  expect(put.lines[2]?.label.y).toBeLessThan(300);
  expect(put.height).toBeGreaterThanOrEqual(300);
});

test('an initial state has an arrow before it, a final one two edges; a long name is cut; a line says its words and how it stands', () => {
  const box = { id: 's' as never, x: 10, y: 10, width: 100, height: 34 };
  const { container } = render(
    <svg>
      <StateBoxDrawn box={box} name={'A very long name of a state, longer'} initial final standing="gap" />
      <StateBoxDrawn box={box} name="Short" initial={false} final={false} standing={null} />
      <StateLine line={{ id: 't' as never, points: [{ x: 0, y: 0 }, { x: 9, y: 9 }], label: { x: 4, y: 4 } }} words="go [paid]" lines={['go', '[paid]']} standing="shown" marked={false} />
    </svg>,
  );
  expect(container.querySelectorAll('rect')).toHaveLength(3);
  expect(container.querySelectorAll('rect')[0]?.getAttribute('stroke-dasharray')).toBe('5 3');
  expect([...container.querySelectorAll('text')].map((t) => t.textContent)).toEqual(['A very long name of a s…', 'Short', 'go', '[paid]']);
  expect(container.querySelector('title')?.textContent).toBe('go [paid]: shown');
});
