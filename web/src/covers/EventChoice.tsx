import { usedBy, type CarriedEvent, type CaseContent, type Cover, type StepId } from '@caderno/core/cases';
import { eventWords, initialState, liveTransitions, stateName, walk, type StateTransitionsModel, type WalkStep } from '@caderno/core/conditions';
import { walkedEvents } from '@caderno/core/coverage';
import { Labelled, Select } from '../look/index.ts';

interface Props {
  readonly model: StateTransitionsModel;
  readonly content: CaseContent;
  readonly cover: Cover;
  readonly onChange: (part: Partial<Cover>) => void;
}

/** Which step carries which event of a state model, where the case begins, and where each step leads to. */
export function EventChoice({ model, content, cover, onChange }: Props) {
  const start = cover.start ?? initialState(model)?.id;
  const carrying = content.steps.filter((s) => cover.events.some((e) => e.id === s.id));
  const walked = start === undefined ? [] : walk(model, start, walkedEvents(content, cover));
  const leads = new Map(carrying.map((s, i) => [s.id, walked[i]]));
  const set = (step: StepId, event: CarriedEvent | null): void => onChange({ events: [...cover.events.filter((e) => e.id !== step), ...(event === null ? [] : [event])] });
  const eventChoices = choicesOf(model);
  return (
    <>
      <Labelled label="The case begins in" className="text-sm">
        <Select
          className="w-full"
          value={cover.start ?? ''}
          options={[{ value: '', name: `the initial state${start === undefined ? '' : `, ${stateName(model, initialState(model)?.id ?? start)}`}` }, ...model.states.map((s) => ({ value: s.id, name: s.name }))]}
          onChange={(state) => onChange({ start: state === '' ? null : state })}
        />
      </Labelled>
      {content.steps.length === 0 && <p className="mt-3 text-sm text-ink2">The case has no steps yet. Write one for each event.</p>}
      <ol className="mt-3 max-h-[46vh] overflow-y-auto text-sm">
        {content.steps.map((step, i) => (
          <li key={step.id} className="grid grid-cols-[22px_1fr_1fr] items-center gap-x-2 border-t border-rule py-1">
            <span className="font-mono text-xs text-ink2">{i + 1}</span>
            <span className="truncate">{step.kind === 'step' ? step.action || 'an empty step' : `uses ${usedBy(step)}`}</span>
            <Select aria-label={`Event of step ${i + 1}`} className="w-full" value={choiceOf(cover.events.find((e) => e.id === step.id))} options={eventChoices} onChange={(choice) => set(step.id, eventOf(model, step.id, choice))} />
            <Lead model={model} step={leads.get(step.id)} />
          </li>
        ))}
      </ol>
    </>
  );
}

/** No event, one whatever its guard, or that of one guarded transition. */
function choicesOf(model: StateTransitionsModel): { readonly value: string; readonly name: string }[] {
  const guarded = liveTransitions(model).filter((t) => t.guard !== '');
  return [
    { value: '', name: 'no event' },
    ...model.events.map((event) => ({ value: event.id, name: event.name })),
    ...guarded.map((t) => ({ value: `${t.event} ${t.id}`, name: `${eventWords(model, t)} → ${stateName(model, t.to)}` })),
  ];
}

function choiceOf(event: CarriedEvent | undefined): string {
  if (event === undefined) return '';
  return event.transition === null ? event.event : `${event.event} ${event.transition}`;
}

function eventOf(model: StateTransitionsModel, step: StepId, choice: string): CarriedEvent | null {
  const [event, transition] = choice.split(' ');
  const chosen = model.events.find((e) => e.id === event);
  return chosen === undefined ? null : { id: step, event: chosen.id, transition: model.transitions.find((t) => t.id === transition)?.id ?? null };
}

function Lead({ model, step }: { readonly model: StateTransitionsModel; readonly step: WalkStep | undefined }) {
  if (step === undefined) return null;
  const words = leadWords(model, step);
  return <span className={`col-start-3 text-xs ${step.kind === 'transition' ? 'text-pine' : step.kind === 'refused' ? 'text-ochre-ink' : 'text-brick'}`}>{words}</span>;
}

function leadWords(model: StateTransitionsModel, step: WalkStep): string {
  switch (step.kind) {
    case 'transition':
      return `→ ${stateName(model, step.transition.to)}`;
    case 'refused':
      return `has no transition in ${stateName(model, step.state)}: refused, and the path ends`;
    case 'undecided':
      return `has several transitions in ${stateName(model, step.state)}: say which`;
    case 'notWalked':
      return 'comes after the end of the path and is not walked';
  }
}
