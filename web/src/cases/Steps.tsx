import type { CaseContent, Step, StepId } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { Trash2 } from 'lucide-react';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { countOf } from '../look/index.ts';
import { ParameterField } from './ParameterField.tsx';
import type { ParameterContext } from './parameterEditing.ts';
import { insertStep, insertSteps, moveStep, newStep, pastedSteps, removeStep, withStep } from './stepEdits.ts';

interface Props {
  readonly steps: readonly Step[];
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly update: (change: (content: CaseContent) => CaseContent) => void;
}

type Part = 'action' | 'expected';
interface Focus {
  readonly step: StepId;
  readonly part: Part;
  readonly turn: number;
}

/** What the keys in a step ask for. */
type StepCommand =
  | { readonly kind: 'change'; readonly part: Partial<Pick<Step, Part>> }
  | { readonly kind: 'append' }
  | { readonly kind: 'remove' }
  | { readonly kind: 'go'; readonly part: Part }
  | { readonly kind: 'neighbour'; readonly direction: -1 | 1; readonly part: Part }
  | { readonly kind: 'move'; readonly direction: -1 | 1; readonly part: Part }
  | { readonly kind: 'paste'; readonly text: string };

/** Carries out a command at a step (null: at the end); answers whether there was anything to do. */
type Act = (at: StepId | null, command: StepCommand) => boolean;

/** The steps, written as lines of text: an action, and below it, led by ⇒, what is expected. */
export const Steps = memo(function Steps({ steps, context, canEdit, update }: Props) {
  const { focus, act } = useStepCommands(steps, update);
  const last = steps.at(-1)?.id ?? null;
  return (
    <ol aria-label="Steps" className="mb-1">
      {steps.map((step, i) => (
        <StepLine key={step.id} step={step} number={i + 1} context={context} canEdit={canEdit} focus={focus?.step === step.id ? focus : null} act={act} />
      ))}
      {canEdit && (
        <li className="flex items-baseline border-b border-rule py-1.5">
          <span className="w-[26px] shrink-0 font-mono text-xs text-ink2">{steps.length + 1}</span>
          <button
            type="button"
            className="flex-1 text-left text-ink2"
            onClick={() => act(last, { kind: 'append' })}
            onPaste={(event) => {
              event.preventDefault();
              act(last, { kind: 'paste', text: event.clipboardData.getData('text/plain') });
            }}
          >
            Write the next step, &lt; for a parameter; or paste many lines here
          </button>
        </li>
      )}
    </ol>
  );
});

/** One stable function for all lines, so that typing in one step does not draw the others again. */
function useStepCommands(steps: readonly Step[], update: Props['update']): { readonly focus: Focus | null; readonly act: Act } {
  const [focus, setFocus] = useState<Focus | null>(null);
  const latest = useRef(steps);
  useEffect(() => {
    latest.current = steps;
  });
  const act = useCallback<Act>(
    (at, command) => {
      const go = (step: StepId, part: Part): boolean => {
        setFocus((f) => ({ step, part, turn: (f?.turn ?? 0) + 1 }));
        return true;
      };
      const append = (): boolean => {
        // Made once, outside the update, which may run twice.
        const step = newStep();
        update((c) => insertStep(c, at, step));
        return go(step.id, 'action');
      };
      if (command.kind === 'append') return append();
      if (command.kind === 'paste') {
        const pasted = pastedSteps(command.text);
        const total = latest.current.length + pasted.length;
        if (total > LIMITS.steps) {
          toast.error(`A case may have ${countOf(LIMITS.steps, 'step')}; with this paste it would have ${total.toLocaleString()}. Nothing was pasted: split it over several cases.`);
          return true;
        }
        update((c) => insertSteps(c, at, pasted));
        const last = pasted.at(-1);
        return last === undefined || go(last.id, 'action');
      }
      if (at === null) return false;
      const place = latest.current.findIndex((s) => s.id === at);
      switch (command.kind) {
        case 'change':
          update((c) => withStep(c, at, command.part));
          return true;
        case 'go':
          return go(at, command.part);
        case 'neighbour': {
          const neighbour = latest.current[place + command.direction];
          if (neighbour === undefined) return command.direction === 1 && append();
          return go(neighbour.id, command.part);
        }
        case 'move':
          update((c) => moveStep(c, at, command.direction));
          return go(at, command.part);
        case 'remove': {
          update((c) => removeStep(c, at));
          const neighbour = latest.current[place - 1] ?? latest.current[place + 1];
          return neighbour === undefined || go(neighbour.id, 'action');
        }
      }
    },
    [update],
  );
  return { focus, act };
}

interface LineProps {
  readonly step: Step;
  readonly number: number;
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly focus: Focus | null;
  readonly act: Act;
}

const StepLine = memo(function StepLine({ step, number, context, canEdit, focus, act }: LineProps) {
  const onChange = (part: Partial<Pick<Step, Part>>): boolean => act(step.id, { kind: 'change', part });
  const onRemove = (): boolean => act(step.id, { kind: 'remove' });
  const onGo = (part: Part): boolean => act(step.id, { kind: 'go', part });
  const onNeighbour = (direction: -1 | 1, part: Part): boolean => act(step.id, { kind: 'neighbour', direction, part });
  const onMove = (direction: -1 | 1, part: Part): boolean => act(step.id, { kind: 'move', direction, part });
  const turnOf = (part: Part): number => (focus?.part === part ? focus.turn : 0);
  const hasExpected = step.expected !== '' || focus?.part === 'expected';
  const shared = {
    context,
    readOnly: !canEdit,
    oneLine: true,
    onEnter: () => act(step.id, { kind: 'append' }),
    onPasteLines: (text: string) => act(step.id, { kind: 'paste', text }),
  };
  return (
    <li className="group relative flex items-baseline border-b border-rule py-1">
      <span className="w-[26px] shrink-0 font-mono text-xs text-ink2">{number}</span>
      <div className="min-w-0 flex-1">
        <ParameterField
          {...shared}
          label={`Action of step ${number}`}
          value={step.action}
          placeholder="What is done"
          onChange={(action) => onChange({ action })}
          focusTurn={turnOf('action')}
          onTab={() => onGo('expected')}
          onShiftTab={() => onNeighbour(-1, 'expected')}
          onMove={(direction) => onMove(direction, 'action')}
          onLeave={(direction) => (direction === 1 && hasExpected ? onGo('expected') : onNeighbour(direction, 'action'))}
          onBackspaceEmpty={() => step.expected === '' && onRemove()}
        />
        {hasExpected && (
          <div className="flex items-baseline text-pine">
            <span className="w-5 shrink-0 font-bold" aria-hidden="true">
              ⇒
            </span>
            <ParameterField
              {...shared}
              label={`Expected result of step ${number}`}
              value={step.expected}
              placeholder="What is expected then"
              onChange={(expected) => onChange({ expected })}
              focusTurn={turnOf('expected')}
              onTab={() => onNeighbour(1, 'action')}
              onShiftTab={() => onGo('action')}
              onMove={(direction) => onMove(direction, 'expected')}
              onLeave={(direction) => (direction === -1 ? onGo('action') : onNeighbour(1, 'action'))}
              onBackspaceEmpty={() => onGo('action')}
              className="min-w-0 flex-1"
            />
          </div>
        )}
      </div>
      {canEdit && (
        <span className="absolute right-0 top-1 hidden gap-1 bg-page pl-2 group-focus-within:flex group-hover:flex">
          {!hasExpected && (
            <button type="button" tabIndex={-1} className="h-6 rounded px-1.5 text-xs text-pine hover:bg-page2" onClick={() => onGo('expected')}>
              ⇒ expected
            </button>
          )}
          <button type="button" tabIndex={-1} aria-label={`Remove step ${number}`} title="Remove the step" className="grid size-6 place-items-center rounded text-ink2 hover:bg-page2" onClick={onRemove}>
            <Trash2 size={13} aria-hidden="true" />
          </button>
        </span>
      )}
    </li>
  );
});
