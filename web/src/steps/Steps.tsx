import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { isUse, type CaseCall, type PlainStep, type SharedUse, type Step, type StepId } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { memo, useCallback, useDeferredValue, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { TextButton, countOf } from '../look/index.ts';
import { InsertUse } from './InsertUse.tsx';
import { PlainLine } from './PlainLine.tsx';
import { UseLine } from './UseLine.tsx';
import type { ParameterContext } from './parameterEditing.ts';
import { DropPlace, DropPlaces } from './UseDragging.tsx';
import { insertStep, insertSteps, moveStep, newStep, newUse, pastedSteps, removeStep, withStep, type StepsEdit } from './stepEdits.ts';
import type { StepsOpened } from './useOpened.ts';

interface Props {
  readonly steps: readonly Step[];
  readonly context: ParameterContext;
  /** What the uses among them lead to. */
  readonly opened: StepsOpened;
  readonly canEdit: boolean;
  readonly update: (edit: StepsEdit) => void;
  /** Takes the selected run of steps out into shared steps. */
  readonly onTakeOut: (steps: readonly StepId[]) => void;
  readonly onPutBack: (use: SharedUse) => void;
}

export type StepPart = 'action' | 'expected';
export interface Focus {
  readonly step: StepId;
  readonly part: StepPart;
  readonly turn: number;
}

/** What the keys in a step ask for. */
export type StepCommand =
  | { readonly kind: 'change'; readonly part: Partial<Pick<PlainStep, StepPart | 'attachments'>> }
  | { readonly kind: 'changeUse'; readonly part: Partial<SharedUse> | Partial<CaseCall> }
  | { readonly kind: 'append' }
  | { readonly kind: 'insert' }
  | { readonly kind: 'remove' }
  | { readonly kind: 'go'; readonly part: StepPart }
  | { readonly kind: 'neighbour'; readonly direction: -1 | 1; readonly part: StepPart }
  | { readonly kind: 'move'; readonly direction: -1 | 1; readonly part: StepPart }
  | { readonly kind: 'paste'; readonly text: string };

/** Carries out a command at a step (null: at the end); answers whether there was anything to do. */
export type Act = (at: StepId | null, command: StepCommand) => boolean;

/** Lines that fill a tall window. */
const FIRST_SEEN = 40;

/** The steps, written as lines of text: an action, and below it, led by ⇒, what is expected; uses of what is written elsewhere as insets. */
export const Steps = memo(function Steps({ steps, context, opened, canEdit, update, onTakeOut, onPutBack }: Props) {
  // What is seen first is drawn first; the rest follows while one reads.
  const whole = useDeferredValue(true, steps.length <= FIRST_SEEN);
  const [inserting, setInserting] = useState<{ readonly at: StepId | null } | null>(null);
  const { focus, act, place } = useStepCommands(steps, update, setInserting);
  const [selected, setSelected] = useState<readonly StepId[]>([]);
  const drop = useCallback((after: StepId | null, id: SharedId | CaseId) => place(after, newUse(id)), [place]);
  const last = steps.at(-1)?.id ?? null;
  const chosen = steps.filter((s) => selected.includes(s.id)).map((s) => s.id);
  const select = useSelect(steps, setSelected);
  return (
    <DropPlaces place={canEdit ? drop : null}>
      <div className="relative">
        <DropPlace after={null} />
      </div>
      <ol aria-label="Steps" className="relative mb-1">
        {(whole ? steps : steps.slice(0, FIRST_SEEN)).map((step, i) => {
          const shared = { number: i + 1, context, canEdit, act, selected: chosen.includes(step.id), onSelect: select, focus: focus?.step === step.id ? focus : null };
          return isUse(step) ? <UseLine key={step.id} use={step} opened={opened} onPutBack={onPutBack} {...shared} /> : <PlainLine key={step.id} step={step} {...shared} />;
        })}
        {canEdit && (
          <li className="relative flex items-baseline border-b border-rule py-1.5">
            <span className="w-[26px] shrink-0 font-mono text-xs text-ink2">{steps.length + 1}</span>
            <button
              type="button"
              className="flex-1 text-left text-ink2"
              onClick={() => act(last, { kind: 'append' })}
              onKeyDown={(event) => {
                if (event.key !== '/') return;
                event.preventDefault();
                act(last, { kind: 'insert' });
              }}
              onPaste={(event) => {
                event.preventDefault();
                act(last, { kind: 'paste', text: event.clipboardData.getData('text/plain') });
              }}
            >
              Write the next step, / for shared steps or a call, &lt; for a parameter; or paste many lines here
            </button>
          </li>
        )}
      </ol>
      {chosen.length > 0 && (
        <div role="toolbar" aria-label="Selected steps" className="mb-2 flex items-center gap-4 border-y border-rule2 bg-page2 px-2 py-1.5 text-sm">
          <strong>{countOf(chosen.length, 'step')} selected</strong>
          {isRun(steps, chosen) ? <TextButton onClick={() => (onTakeOut(chosen), setSelected([]))}>take out into shared steps</TextButton> : <span className="text-ink2">only steps that follow each other can be taken out</span>}
          <TextButton className="ml-auto text-ink2" onClick={() => setSelected([])}>
            none
          </TextButton>
        </div>
      )}
      {inserting !== null && <InsertUse onClose={() => setInserting(null)} onInsert={(use) => (place(inserting.at, use), setInserting(null))} />}
    </DropPlaces>
  );
});

function isRun(steps: readonly Step[], ids: readonly StepId[]): boolean {
  const first = steps.findIndex((s) => ids.includes(s.id));
  return steps.slice(first, first + ids.length).every((s) => ids.includes(s.id));
}

/** Selects a step, or with shift all from the one selected last. */
function useSelect(steps: readonly Step[], setSelected: (change: (selected: readonly StepId[]) => readonly StepId[]) => void): (id: StepId, on: boolean, through: boolean) => void {
  const latest = useRef({ steps, last: null as StepId | null });
  useEffect(() => {
    latest.current.steps = steps;
  });
  return useCallback(
    (id, on, through) => {
      const { steps: all, last } = latest.current;
      const [a, b] = [all.findIndex((s) => s.id === (through && last !== null ? last : id)), all.findIndex((s) => s.id === id)];
      const meant = all.slice(Math.min(a, b), Math.max(a, b) + 1).map((s) => s.id);
      latest.current.last = id;
      setSelected((selected) => (on ? [...new Set([...selected, ...meant])] : selected.filter((s) => !meant.includes(s))));
    },
    [setSelected],
  );
}

/** One stable function for all lines, so that typing in one step does not draw the others again. */
function useStepCommands(steps: readonly Step[], update: Props['update'], onInsert: (at: { readonly at: StepId | null }) => void): { readonly focus: Focus | null; readonly act: Act; readonly place: (at: StepId | null, use: Step) => void } {
  const [focus, setFocus] = useState<Focus | null>(null);
  const latest = useRef(steps);
  useEffect(() => {
    latest.current = steps;
  });
  const go = useCallback((step: StepId, part: StepPart): boolean => {
    setFocus((f) => ({ step, part, turn: (f?.turn ?? 0) + 1 }));
    return true;
  }, []);
  const act = useCallback<Act>(
    (at, command) => {
      const append = (): boolean => {
        // Made once, outside the update, which may run twice.
        const step = newStep();
        update(insertStep(at, step));
        return go(step.id, 'action');
      };
      if (command.kind === 'append') return append();
      if (command.kind === 'insert') {
        onInsert({ at });
        return true;
      }
      if (command.kind === 'paste') {
        const pasted = pastedSteps(command.text);
        const total = latest.current.length + pasted.length;
        if (total > LIMITS.steps) {
          toast.error(`A case may have ${countOf(LIMITS.steps, 'step')}; with this paste it would have ${total.toLocaleString()}. Nothing was pasted: split it over several cases.`);
          return true;
        }
        update(insertSteps(at, pasted));
        const last = pasted.at(-1);
        return last === undefined || go(last.id, 'action');
      }
      if (at === null) return false;
      const place = latest.current.findIndex((s) => s.id === at);
      switch (command.kind) {
        case 'change':
          update(withStep(at, 'step', command.part));
          return true;
        case 'changeUse':
          update(withStep<Step>(at, latest.current[place]?.kind ?? 'step', command.part));
          return true;
        case 'go':
          return go(at, command.part);
        case 'neighbour': {
          const neighbour = latest.current[place + command.direction];
          if (neighbour === undefined) return command.direction === 1 && append();
          return go(neighbour.id, command.part);
        }
        case 'move':
          update(moveStep(at, command.direction));
          return go(at, command.part);
        case 'remove': {
          update(removeStep(at));
          const neighbour = latest.current[place - 1] ?? latest.current[place + 1];
          return neighbour === undefined || go(neighbour.id, 'action');
        }
      }
    },
    [go, onInsert, update],
  );
  const place = useCallback(
    (at: StepId | null, use: Step) => {
      update(insertSteps(at, [use]));
      go(use.id, 'action');
    },
    [go, update],
  );
  return { focus, act, place };
}
