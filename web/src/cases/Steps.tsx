import type { CaseContent, Step, StepId } from '@caderno/core/cases';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { ParameterField } from './ParameterField.tsx';
import type { ParameterContext } from './parameterEditing.ts';
import { insertStep, moveStep, newStep, pasteSteps, removeStep, withStep } from './stepEdits.ts';

interface Props {
  readonly content: CaseContent;
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

/** The steps, written as lines of text: an action, and below it, led by ⇒, what is expected. */
export function Steps({ content, context, canEdit, update }: Props) {
  const [focus, setFocus] = useState<Focus | null>(null);
  const go = (step: StepId, part: Part): boolean => {
    setFocus((f) => ({ step, part, turn: (f?.turn ?? 0) + 1 }));
    return true;
  };
  const { steps } = content;
  const append = (after: StepId | null): boolean => {
    const step = newStep();
    update((c) => insertStep(c, after, step));
    return go(step.id, 'action');
  };
  const paste = (at: StepId | null) => (text: string): boolean => {
    // Ids are made once, outside the update, which may run twice.
    const pasted = pasteSteps(content, at, text);
    update(() => pasted.content);
    return pasted.last === null || go(pasted.last, 'action');
  };
  return (
    <ol aria-label="Steps" className="mb-1">
      {steps.map((step, i) => (
        <StepLine
          key={step.id}
          step={step}
          number={i + 1}
          context={context}
          canEdit={canEdit}
          focus={focus?.step === step.id ? focus : null}
          onChange={(part) => update((c) => withStep(c, step.id, part))}
          onRemove={() => {
            update((c) => removeStep(c, step.id));
            const neighbour = steps[i - 1] ?? steps[i + 1];
            return neighbour === undefined || go(neighbour.id, 'action');
          }}
          onEnter={() => append(step.id)}
          onGo={(part) => go(step.id, part)}
          onNeighbour={(direction, part) => {
            const neighbour = steps[i + direction];
            return neighbour === undefined ? direction === 1 && append(step.id) : go(neighbour.id, part);
          }}
          onMove={(direction, part) => {
            update((c) => moveStep(c, step.id, direction));
            return go(step.id, part);
          }}
          onPasteLines={paste(step.id)}
        />
      ))}
      {canEdit && (
        <li className="flex items-baseline border-b border-rule py-1">
          <span className="w-[26px] shrink-0 font-mono text-xs text-ink2">{steps.length + 1}</span>
          <button
            type="button"
            className="flex-1 text-left text-ink2"
            onClick={() => append(steps.at(-1)?.id ?? null)}
            onPaste={(event) => {
              event.preventDefault();
              paste(steps.at(-1)?.id ?? null)(event.clipboardData.getData('text/plain'));
            }}
          >
            Write the next step, &lt; for a parameter; or paste many lines here
          </button>
        </li>
      )}
    </ol>
  );
}

interface LineProps {
  readonly step: Step;
  readonly number: number;
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly focus: Focus | null;
  readonly onChange: (part: Partial<Pick<Step, Part>>) => void;
  readonly onRemove: () => boolean;
  readonly onEnter: () => boolean;
  readonly onGo: (part: Part) => boolean;
  readonly onNeighbour: (direction: -1 | 1, part: Part) => boolean;
  readonly onMove: (direction: -1 | 1, part: Part) => boolean;
  readonly onPasteLines: (text: string) => boolean;
}

function StepLine({ step, number, context, canEdit, focus, onChange, onRemove, onEnter, onGo, onNeighbour, onMove, onPasteLines }: LineProps) {
  const turnOf = (part: Part): number => (focus?.part === part ? focus.turn : 0);
  const hasExpected = step.expected !== '' || focus?.part === 'expected';
  const shared = { context, readOnly: !canEdit, oneLine: true, onEnter, onPasteLines } as const;
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
}
