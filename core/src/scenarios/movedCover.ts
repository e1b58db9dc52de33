import type { Cover, ParameterId, StepId } from '../cases/index.ts';

/** What a scenario covers, told of the steps and values that stand in place of its own; those that are not named stay. */
export function movedCover(cover: Cover, steps: ReadonlyMap<StepId, StepId>, parameterNow: (id: ParameterId) => ParameterId): Cover {
  return {
    ...cover,
    fields: cover.fields.map((f) => ({ ...f, parameter: parameterNow(f.parameter) })),
    outcome: cover.outcome === null ? null : parameterNow(cover.outcome),
    expects: [...new Set(cover.expects.map((id) => steps.get(id) ?? id))],
    events: cover.events.map((e) => ({ ...e, id: steps.get(e.id) ?? e.id })),
  };
}
