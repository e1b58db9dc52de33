import { invalidPairKey, leaving, sequenceKey, stateItems, stateKey } from './stateItems.ts';
import { sequenceLength, type EventId, type StateId, type StateTransitionsModel, type Transition, type TransitionId } from './stateTransitions.ts';
import type { ItemKey } from '../item.ts';

/** An event a step carries. The transition tells which one is meant where guards leave a choice; null: the only one. */
export interface WalkedEvent {
  readonly event: EventId;
  readonly transition: TransitionId | null;
}

/** How a walk went on at one event. */
export type WalkStep =
  | { readonly kind: 'transition'; readonly transition: Transition }
  /** No transition for the event in the state: the walk ends here. */
  | { readonly kind: 'refused'; readonly state: StateId; readonly event: EventId }
  /** Guards leave a choice and the step does not say which transition it means: the walk ends here. */
  | { readonly kind: 'undecided'; readonly state: StateId; readonly event: EventId }
  /** After the end of the walk. */
  | { readonly kind: 'notWalked' };

/** Follows events through the states from a start; one answer per event. */
export function walk(model: StateTransitionsModel, start: StateId, events: readonly WalkedEvent[]): WalkStep[] {
  const out = leaving(model);
  let state: StateId | null = start;
  return events.map(({ event, transition }): WalkStep => {
    if (state === null) return { kind: 'notWalked' };
    const open: Transition[] = (out.get(state) ?? []).filter((t) => t.event === event);
    const [taken] = open.length > 1 ? open.filter((t) => t.id === transition) : open;
    const at: StateId = state;
    state = taken?.to ?? null;
    if (taken !== undefined) return { kind: 'transition', transition: taken };
    return { kind: open.length === 0 ? 'refused' : 'undecided', state: at, event };
  });
}

/** A state model made ready to judge many cases: items by key, by their place. */
export interface StateJudge {
  readonly model: StateTransitionsModel;
  readonly places: ReadonlyMap<ItemKey, number>;
}

export function stateJudge(model: StateTransitionsModel): StateJudge {
  return { model, places: new Map(stateItems(model).map((item, place) => [item.key, place])) };
}

/**
 * The items (by place) that a case's events show: the states passed, the sequences of the level's length, and the
 * invalid pair at which the walk ends. A case that carries no event shows nothing, not even the state it begins in.
 */
export function stateItemsShown({ model, places }: StateJudge, start: StateId, events: readonly WalkedEvent[]): number[] {
  const steps = walk(model, start, events);
  const taken = steps.flatMap((s) => (s.kind === 'transition' ? [s.transition] : []));
  const length = sequenceLength(model.level);
  const passed = length === 0 ? [start, ...taken.map((t) => t.to)].map(stateKey) : runs(taken, length).map(sequenceKey);
  const refused = steps.flatMap((s) => (s.kind === 'refused' ? [invalidPairKey(s.state, s.event)] : []));
  const keys: readonly ItemKey[] = events.length === 0 ? [] : [...passed, ...refused];
  return [...new Set(keys)].flatMap((key) => places.get(key) ?? []);
}

function runs(taken: readonly Transition[], length: number): TransitionId[][] {
  return taken.slice(length - 1).map((_, i) => taken.slice(i, i + length).map((t) => t.id));
}
