import { itemKey, type CoverageItem, type ItemKey } from '../item.ts';
import { eventWords, liveTransitions, sequenceLength, stateName, type EventId, type StateId, type StateTransitionsModel, type Transition, type TransitionId } from './stateTransitions.ts';

export function stateKey(id: StateId): ItemKey {
  return itemKey(`state:${id}`);
}

export function sequenceKey(transitions: readonly TransitionId[]): ItemKey {
  return itemKey(`run:${transitions.join('>')}`);
}

export function invalidPairKey(state: StateId, event: EventId): ItemKey {
  return itemKey(`invalid:${state}:${event}`);
}

/** The transitions that leave each state, in the order of the model. */
export function leaving(model: StateTransitionsModel): Map<StateId, Transition[]> {
  const by = new Map<StateId, Transition[]>(model.states.map((s) => [s.id, []]));
  for (const transition of liveTransitions(model)) by.get(transition.from)?.push(transition);
  return by;
}

/** How many items a state model has, without making them: a number of sequences may explode. */
export function countStateItems(model: StateTransitionsModel): bigint {
  const out = leaving(model);
  const invalid = model.invalidPairs ? BigInt(invalidPairs(model).length) : 0n;
  const length = sequenceLength(model.level);
  if (length === 0) return BigInt(model.states.length) + invalid;
  // ways.get(s): sequences of the length so far that end in s.
  let ways = new Map<StateId, bigint>(model.states.map((s) => [s.id, 1n]));
  for (let i = 0; i < length; i += 1) {
    const next = new Map<StateId, bigint>();
    for (const [state, count] of ways) for (const { to } of out.get(state) ?? []) next.set(to, (next.get(to) ?? 0n) + count);
    ways = next;
  }
  return [...ways.values()].reduce((a, b) => a + b, 0n) + invalid;
}

/** All sequences of consecutive transitions of a length, by the order of their transitions in the model. */
export function sequencesOf(model: StateTransitionsModel, length: number): Transition[][] {
  const out = leaving(model);
  let sequences = liveTransitions(model).map((t) => [t]);
  for (let i = 1; i < length; i += 1) sequences = sequences.flatMap((s) => s.slice(-1).flatMap((last) => out.get(last.to) ?? []).map((t) => [...s, t]));
  return sequences;
}

/** The pairs of a state and an event for which there is no transition, state by state. */
export function invalidPairs(model: StateTransitionsModel): { readonly state: StateId; readonly event: EventId }[] {
  const there = new Set(liveTransitions(model).map((t) => `${t.from}\n${t.event}`));
  return model.states.flatMap((s) => model.events.filter((e) => !there.has(`${s.id}\n${e.id}`)).map((e) => ({ state: s.id, event: e.id })));
}

/** States or sequences, then the invalid pairs. */
export function stateItems(model: StateTransitionsModel): CoverageItem[] {
  const length = sequenceLength(model.level);
  const items = length === 0 ? model.states.map((s) => newItem(stateKey(s.id), 'state', s.name, s.final ? 'may end here' : '', '')) : sequencesOf(model, length).map((s) => sequenceItem(model, s));
  const invalid = model.invalidPairs ? invalidPairs(model).map((pair) => invalidItem(model, pair)) : [];
  return [...items, ...invalid].map((item, i) => ({ ...item, number: i + 1 }));
}

function sequenceItem(model: StateTransitionsModel, sequence: readonly Transition[]): Omit<CoverageItem, 'number'> {
  const [first] = sequence;
  const states = [first?.from, ...sequence.map((t) => t.to)].map((id) => (id === undefined ? '?' : stateName(model, id)));
  const name = sequence.map((t) => eventWords(model, t)).join(', then ');
  const outcome = sequence.map((t) => t.action).filter((a) => a !== '').join('; ');
  return newItem(sequenceKey(sequence.map((t) => t.id)), sequence.length === 1 ? 'transition' : 'sequence', name, states.join(' → '), outcome);
}

function invalidItem(model: StateTransitionsModel, { state, event }: { readonly state: StateId; readonly event: EventId }): Omit<CoverageItem, 'number'> {
  const name = model.events.find((e) => e.id === event)?.name ?? '?';
  return { ...newItem(invalidPairKey(state, event), 'invalidPair', name, `in ${stateName(model, state)}`, 'refused; the state stays'), valid: false };
}

function newItem(key: ItemKey, kind: CoverageItem['kind'], name: string, extent: string, outcome: string): Omit<CoverageItem, 'number'> {
  return { key, kind, field: null, name, extent, sample: null, valid: true, outcome };
}
