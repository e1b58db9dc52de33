import { eventWords, stateName, type StateProblem, type StateTransitionsModel } from '@caderno/core/conditions';

/** What is wrong with a state model, in words. */
export function stateProblemSentence(problem: StateProblem, model: StateTransitionsModel): string {
  const event = (id: (typeof model.events)[number]['id']): string => eventWords(model, { event: id, guard: '' });
  switch (problem.code) {
    case 'no_states':
      return 'There is no state yet.';
    case 'no_initial':
      return 'No state is the initial one: no path can begin. Mark where things begin.';
    case 'initial_twice':
      return `${problem.states.map((id) => stateName(model, id)).join(' and ')} are both initial; paths begin in the first.`;
    case 'state_name_twice':
      return `Two states are called “${problem.name}”.`;
    case 'event_name_twice':
      return `Two events are called “${problem.name}”.`;
    case 'event_unused':
      return `No transition has the event “${event(problem.event)}”.`;
    case 'unreachable':
      return `${stateName(model, problem.state)} cannot be reached from the initial state.`;
    case 'dead_end':
      return `Nothing leads out of ${stateName(model, problem.state)}, and it is not marked as an end.`;
    case 'guards_overlap':
      return `In ${stateName(model, problem.state)}, “${event(problem.event)}” has two transitions whose guards can hold together.`;
  }
}
