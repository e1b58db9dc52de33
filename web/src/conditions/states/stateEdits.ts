import { eventId, stateId, transitionId, type EventId, type State, type StateEvent, type StateId, type StateTransitionsModel, type Transition, type TransitionId } from '@caderno/core/conditions';
import { newPartId } from '../newPartId.ts';

/** Edits of a state model; each answers the model after it. */
type Edit = (model: StateTransitionsModel) => StateTransitionsModel;

function newState(name: string, initial: boolean): State {
  return { id: stateId(newPartId()), name, initial, final: false, place: null };
}

/** A model to begin with: two states and a transition between them. */
export function newStates(): StateTransitionsModel {
  const states = [newState('First state', true), newState('Second state', false)];
  const [from, to] = states;
  const event: StateEvent = { id: eventId(newPartId()), name: 'something happens' };
  const transitions = from === undefined || to === undefined ? [] : [{ id: transitionId(newPartId()), from: from.id, event: event.id, to: to.id, guard: '', action: '' }];
  return { kind: 'stateTransitions', states, events: [event], transitions, level: 'switch0', invalidPairs: true };
}

export function withState(id: StateId, part: Partial<State>): Edit {
  return (model) => ({ ...model, states: model.states.map((s) => (s.id === id ? { ...s, ...part } : s)) });
}

/** Things begin in one state: the others are no longer initial. */
export function makeInitial(id: StateId): Edit {
  return (model) => ({ ...model, states: model.states.map((s) => ({ ...s, initial: s.id === id })) });
}

export const addState: Edit = (model) => ({ ...model, states: [...model.states, newState(`State ${model.states.length + 1}`, model.states.length === 0)] });

/** Without a state and the transitions that touch it. */
export function withoutState(id: StateId): Edit {
  return (model) => ({ ...model, states: model.states.filter((s) => s.id !== id), transitions: model.transitions.filter((t) => t.from !== id && t.to !== id) });
}

export const laidOut: Edit = (model) => ({ ...model, states: model.states.map((s) => ({ ...s, place: null })) });

/** The state or event of a name, made when there is none. */
function stateNamed(model: StateTransitionsModel, name: string): { model: StateTransitionsModel; id: StateId } {
  const known = model.states.find((s) => s.name === name);
  if (known !== undefined) return { model, id: known.id };
  const state = newState(name, model.states.length === 0);
  return { model: { ...model, states: [...model.states, state] }, id: state.id };
}

function eventNamed(model: StateTransitionsModel, name: string): { model: StateTransitionsModel; id: EventId } {
  const known = model.events.find((e) => e.name === name);
  if (known !== undefined) return { model, id: known.id };
  const event: StateEvent = { id: eventId(newPartId()), name };
  return { model: { ...model, events: [...model.events, event] }, id: event.id };
}

/** A transition as it is typed. */
export type TransitionText = Readonly<Record<'from' | 'event' | 'guard' | 'to' | 'action', string>>;

export function textOf(model: StateTransitionsModel, t: Transition): TransitionText {
  const state = (id: StateId): string => model.states.find((s) => s.id === id)?.name ?? '';
  return { from: state(t.from), event: model.events.find((e) => e.id === t.event)?.name ?? '', guard: t.guard, to: state(t.to), action: t.action };
}

/** Writes a transition as typed: states and events of new names are made; events nobody uses any more go. */
export function writeTransition(id: TransitionId, text: TransitionText, after: number): Edit {
  return (before) => {
    const from = stateNamed(before, text.from);
    const to = stateNamed(from.model, text.to);
    const event = eventNamed(to.model, text.event);
    const { model } = event;
    const written: Transition = { id, from: from.id, event: event.id, to: to.id, guard: text.guard, action: text.action };
    const there = model.transitions.some((t) => t.id === id);
    const transitions = there ? model.transitions.map((t) => (t.id === id ? written : t)) : [...model.transitions.slice(0, after + 1), written, ...model.transitions.slice(after + 1)];
    return withoutUnusedEvents({ ...model, transitions }, before);
  };
}

export function removeTransition(id: TransitionId): Edit {
  return (model) => withoutUnusedEvents({ ...model, transitions: model.transitions.filter((t) => t.id !== id) }, model);
}

/** An event that a change has left without a transition goes; one that had none before stays. */
function withoutUnusedEvents(model: StateTransitionsModel, before: StateTransitionsModel): StateTransitionsModel {
  const used = new Set(model.transitions.map((t) => t.event));
  const usedBefore = new Set(before.transitions.map((t) => t.event));
  return { ...model, events: model.events.filter((e) => used.has(e.id) || !usedBefore.has(e.id)) };
}
