export type StateId = string & { readonly __brand: 'StateId' };
export type EventId = string & { readonly __brand: 'EventId' };
export type TransitionId = string & { readonly __brand: 'TransitionId' };

/** The one maker of state ids. */
export function stateId(text: string): StateId {
  return text as StateId;
}
/** The one maker of event ids. */
export function eventId(text: string): EventId {
  return text as EventId;
}
/** The one maker of transition ids. */
export function transitionId(text: string): TransitionId {
  return text as TransitionId;
}

/** What has to be shown: every state, or every sequence of transitions of a length (`switch0`: single transitions). */
export const STATE_LEVELS = ['states', 'switch0', 'switch1', 'switch2', 'switch3', 'switch4'] as const;
export type StateLevel = (typeof STATE_LEVELS)[number];

/** State transition testing (ISO/IEC/IEEE 29119-4, 5.2.8). */
export interface StateTransitionsModel {
  readonly kind: 'stateTransitions';
  readonly states: readonly State[];
  readonly events: readonly StateEvent[];
  readonly transitions: readonly Transition[];
  readonly level: StateLevel;
  /** Whether every pair of a state and an event without a transition has to be shown to be refused. */
  readonly invalidPairs: boolean;
}

export interface State {
  readonly id: StateId;
  readonly name: string;
  /** Where things begin; exactly one state should be. */
  readonly initial: boolean;
  /** Where they may end. */
  readonly final: boolean;
  /** Where it was put in the diagram by hand; null: laid out. */
  readonly place: { readonly x: number; readonly y: number } | null;
}

export interface StateEvent {
  readonly id: EventId;
  readonly name: string;
}

export interface Transition {
  readonly id: TransitionId;
  readonly from: StateId;
  readonly event: EventId;
  readonly to: StateId;
  /** Under which circumstance, in words; empty: always. */
  readonly guard: string;
  /** What is done on the way, in words. */
  readonly action: string;
}

/** How many transitions a sequence of a level has; 0 for states. */
export function sequenceLength(level: StateLevel): number {
  return STATE_LEVELS.indexOf(level);
}

/** The state things begin in: the first that is marked; null when none is. */
export function initialState(model: StateTransitionsModel): State | null {
  return model.states.find((s) => s.initial) ?? null;
}

/** An event as it is written in steps and lists, with its guard: `payment [in full]`. */
export function eventWords(model: StateTransitionsModel, transition: Pick<Transition, 'event' | 'guard'>): string {
  const name = model.events.find((e) => e.id === transition.event)?.name ?? '?';
  return transition.guard === '' ? name : `${name} [${transition.guard}]`;
}

export function stateName(model: StateTransitionsModel, id: StateId): string {
  return model.states.find((s) => s.id === id)?.name ?? '?';
}

/** The transitions whose states and event are in the model, in its order; others come from parts that are gone. */
export function liveTransitions(model: StateTransitionsModel): Transition[] {
  const states = new Set(model.states.map((s) => s.id));
  const events = new Set(model.events.map((e) => e.id));
  return model.transitions.filter((t) => states.has(t.from) && states.has(t.to) && events.has(t.event));
}
