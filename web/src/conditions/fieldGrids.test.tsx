/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { eventId, fieldId, stateId, transitionId, type CombinationModel, type StateTransitionsModel, type ValueRangesModel } from '@caderno/core/conditions';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ReactNode } from 'react';
import { FactorGrid } from './combination/FactorGrid.tsx';
import { RangesEditor } from './ranges/RangesEditor.tsx';
import { TransitionTable } from './states/TransitionTable.tsx';

afterEach(cleanup);

/** An editor with the model it changes. */
function edited<M>(first: M, editor: (model: M, onChange: (change: (m: M) => M) => void) => ReactNode): () => M {
  let now = first;
  function Page() {
    const [model, setModel] = useState(first);
    now = model;
    return <>{editor(model, (change) => setModel(change))}</>;
  }
  render(<Page />);
  return () => now;
}
const drawn = (): Promise<void> => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve())));
const focused = (): string | null => document.activeElement?.getAttribute('aria-label') ?? null;

const RANGES: ValueRangesModel = {
  kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false,
  fields: [{ id: fieldId('f'), name: 'reading', type: { kind: 'whole' }, unit: '', required: true, choices: [], patterns: [], classes: [], intervals: [{ id: 'a', valid: true, outcome: '', name: 'low', from: '0', to: '9' }] }],
};

test('intervals are typed line after line without the mouse: Enter makes the next, which goes on where the last ends', async () => {
  const user = userEvent.setup();
  const model = edited(RANGES, (m, onChange) => <RangesEditor model={m} onChange={onChange} />);
  await user.click(screen.getByLabelText('Outcome of low'));
  await user.keyboard('is billed{Enter}');
  await drawn();
  expect(focused()).toBe('Name of the interval');
  await user.keyboard('high');
  const [low, high] = model().fields[0]!.intervals;
  expect([low, high]).toMatchObject([{ name: 'low', outcome: 'is billed' }, { name: 'high', from: '10' }]);
  await user.keyboard('{ArrowUp}');
  await drawn();
  expect((document.activeElement as HTMLInputElement).value).toBe('low');
  // Nothing stands above the first.
  await user.keyboard('{ArrowUp}');
  await drawn();
  expect((document.activeElement as HTMLInputElement).value).toBe('low');
  // What deletes a word in every other field does so here too.
  await user.keyboard('{Control>}{Backspace}{/Control}');
  expect(model().fields[0]!.intervals).toHaveLength(2);
});

const COMBINATION: CombinationModel = { kind: 'combination', constraints: [], strength: 'pairs', groups: [], seed: 1, factors: [{ id: fieldId('x'), name: 'tariff', values: ['household', 'farm'].map((value) => ({ id: value, value, aliases: [], valid: true, base: false, outcome: '' })) }] };

test('values of a factor are typed one below the other; one who may only read makes none', async () => {
  const user = userEvent.setup();
  const model = edited(COMBINATION, (m, onChange) => <FactorGrid model={m} canEdit onChange={onChange} />);
  await user.click(screen.getAllByLabelText('Value of tariff')[1]!);
  await user.keyboard('{Enter}');
  await drawn();
  await user.keyboard('garden');
  expect(model().factors[0]!.values.map((v) => v.value)).toEqual(['household', 'farm', 'garden']);
  // By the pointer one goes on in it as well.
  await user.click(screen.getAllByRole('button', { name: 'value' })[0]!);
  await user.keyboard('school');
  expect(model().factors[0]!.values.map((v) => v.value)).toEqual(['household', 'farm', 'garden', 'school']);
  cleanup();
  const read = edited(COMBINATION, (m, onChange) => <FactorGrid model={m} canEdit={false} onChange={onChange} />);
  await user.click(screen.getAllByLabelText('Value of tariff')[1]!);
  await user.keyboard('{Enter}');
  expect(read().factors[0]!.values).toHaveLength(2);
});

const STATES: StateTransitionsModel = {
  kind: 'stateTransitions', level: 'switch0', invalidPairs: false,
  states: ['open', 'shut'].map((name, i) => ({ id: stateId(name), name, initial: i === 0, final: false, place: null })),
  events: [{ id: eventId('close'), name: 'close' }],
  transitions: [{ id: transitionId('t1'), from: stateId('open'), event: eventId('close'), to: stateId('shut'), guard: '', action: '' }],
};

test('a transition is typed from state to state with Tab and Enter, makes what it names, and goes with Ctrl Backspace', async () => {
  const user = userEvent.setup();
  const model = edited(STATES, (m, onChange) => <TransitionTable model={m} canEdit standingOf={() => null} marked={null} onMark={() => undefined} onChange={onChange} />);
  await user.click(screen.getByLabelText('from of the next transition'));
  await user.keyboard('shut{Tab}reopen{Tab}if paid{Tab}open{Enter}');
  await drawn();
  expect(model().events.map((e) => e.name)).toEqual(['close', 'reopen']);
  expect(model().transitions[1]).toMatchObject({ from: stateId('shut'), to: stateId('open'), guard: 'if paid' });
  expect(focused()).toBe('from of the next transition');
  // What a line lacks is asked for before it is written.
  await user.keyboard('open{Enter}');
  await drawn();
  expect([focused(), model().transitions.length]).toEqual(['event of the next transition', 2]);
  await user.click(screen.getByLabelText('and then of transition 2'));
  await user.keyboard('{Control>}{Backspace}{/Control}');
  await drawn();
  expect(model().transitions.map((t) => t.id)).toEqual(['t1']);
  expect(focused()).toBe('and then of the next transition');
});
