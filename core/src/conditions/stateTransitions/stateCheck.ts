import { leaving } from './stateItems.ts';
import { initialState, type EventId, type StateId, type StateTransitionsModel, type TransitionId } from './stateTransitions.ts';

/** What is wrong with a state model, and where. Reported, never repaired. */
export type StateProblem =
  | { readonly code: 'no_states' }
  | { readonly code: 'no_initial' }
  | { readonly code: 'initial_twice'; readonly states: readonly StateId[] }
  | { readonly code: 'state_name_twice'; readonly name: string }
  | { readonly code: 'event_name_twice'; readonly name: string }
  | { readonly code: 'event_unused'; readonly event: EventId }
  | { readonly code: 'unreachable'; readonly state: StateId }
  /** Nothing leads out of it, and it is not final. */
  | { readonly code: 'dead_end'; readonly state: StateId }
  /** Guards are words, so they overlap for certain only when one is empty or both are the same. */
  | { readonly code: 'guards_overlap'; readonly state: StateId; readonly event: EventId; readonly transitions: readonly [TransitionId, TransitionId] };

/** All problems: of the whole, of names, then state by state in the order of the model. */
export function stateProblems(model: StateTransitionsModel): StateProblem[] {
  if (model.states.length === 0) return [{ code: 'no_states' }];
  const initial = model.states.filter((s) => s.initial).map((s) => s.id);
  const out = leaving(model);
  const reached = reachableStates(model);
  const used = new Set([...out.values()].flat().map((t) => t.event));
  return [
    ...(initial.length === 0 ? [{ code: 'no_initial' } as const] : []),
    ...(initial.length > 1 ? [{ code: 'initial_twice', states: initial } as const] : []),
    ...repeated(model.states).map((name): StateProblem => ({ code: 'state_name_twice', name })),
    ...repeated(model.events).map((name): StateProblem => ({ code: 'event_name_twice', name })),
    ...model.events.filter((e) => !used.has(e.id)).map((e): StateProblem => ({ code: 'event_unused', event: e.id })),
    ...model.states.flatMap((state): StateProblem[] => [
      ...(initial.length > 0 && !reached.has(state.id) ? [{ code: 'unreachable', state: state.id } as const] : []),
      ...(!state.final && (out.get(state.id) ?? []).every((t) => t.to === state.id) ? [{ code: 'dead_end', state: state.id } as const] : []),
      ...overlaps(state.id, out.get(state.id) ?? []),
    ]),
  ];
}

function overlaps(state: StateId, transitions: readonly { readonly id: TransitionId; readonly event: EventId; readonly guard: string }[]): StateProblem[] {
  return transitions.flatMap((a, i) =>
    transitions.slice(i + 1).flatMap((b): StateProblem[] => {
      const [guardA, guardB] = [a.guard.trim().toLowerCase(), b.guard.trim().toLowerCase()];
      const overlap = a.event === b.event && (guardA === '' || guardB === '' || guardA === guardB);
      return overlap ? [{ code: 'guards_overlap', state, event: a.event, transitions: [a.id, b.id] }] : [];
    }),
  );
}

/** The states that can be reached from the initial one, itself included. */
export function reachableStates(model: StateTransitionsModel): ReadonlySet<StateId> {
  const out = leaving(model);
  const start = initialState(model);
  const reached = new Set<StateId>(start === null ? [] : [start.id]);
  for (const state of reached) for (const { to } of out.get(state) ?? []) reached.add(to);
  return reached;
}

function repeated(named: readonly { readonly name: string }[]): string[] {
  const names = named.map((n) => n.name);
  return [...new Set(names.filter((n, i) => names.indexOf(n) !== i))];
}
