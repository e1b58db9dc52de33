import type { CaseId, SharedId } from '@caderno/core/artefacts';
import { isUse, parsePastedSteps, parsePastedTable, stepsOfTable, type PastedTable, type SharedUse, type Step, type StepId } from '@caderno/core/cases';
import { LIMITS } from '@caderno/contract';
import { memo, useCallback, useDeferredValue, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useFrame } from '../frame/index.ts';
import { TextButton, countOf, useLatest, locale } from '../look/index.ts';
import { InsertUse } from './InsertUse.tsx';
import { PlainLine } from './PlainLine.tsx';
import { UseLine } from './UseLine.tsx';
import type { ParameterContext } from './parameterEditing.ts';
import { DropPlace, DropPlaces } from './UseDragging.tsx';
import { PastedTableDialog } from './PastedTableDialog.tsx';
import { takeSteps } from './stepClipboard.ts';
import { freshSteps, insertStep, insertSteps, moveSteps, newStep, newUse, removeSteps, withStep, writtenSteps, type StepsEdit } from './stepEdits.ts';
import type { Act, Focus, StepPart } from './stepCommand.ts';
import { useStepKeys } from './useStepKeys.ts';
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
  /** A number that grows when the steps are to be written in: in the first, or a new one. */
  readonly beginTurn?: number;
}

/** Lines that fill a tall window. */
const FIRST_SEEN = 40;

/** The steps, written as lines of text: an action, and below it, led by ⇒, what is expected; uses of what is written elsewhere as insets. */
export const Steps = memo(function Steps({ steps, context, opened, canEdit, update, onTakeOut, onPutBack, beginTurn = 0 }: Props) {
  // What is seen first is drawn first; the rest follows while one reads.
  const whole = useDeferredValue(true, steps.length <= FIRST_SEEN);
  const [inserting, setInserting] = useState<{ readonly at: StepId | null } | null>(null);
  const [pasted, setPasted] = useState<{ readonly at: StepId | null; readonly table: PastedTable } | null>(null);
  const { focus, act, place, rest, paste } = useStepCommands(steps, context, update, setInserting, setPasted);
  const [selected, setSelected] = useState<readonly StepId[]>([]);
  const firstStep = steps[0]?.id ?? null;
  const begin = useLatest(() => act(firstStep, firstStep === null ? { kind: 'append' } : { kind: 'go', part: 'action' }));
  useEffect(() => {
    if (beginTurn > 0) begin.current();
  }, [begin, beginTurn]);
  const drop = useCallback((after: StepId | null, id: SharedId | CaseId) => place(after, newUse(id)), [place]);
  const last = steps.at(-1)?.id ?? null;
  const chosen = steps.filter((s) => selected.includes(s.id)).map((s) => s.id);
  const select = useSelect(steps, setSelected);
  const keys = useStepKeys({ steps, chosen, context, canEdit, update, select: setSelected, rest, act });
  return (
    <DropPlaces place={canEdit ? drop : null}>
      <div {...keys}>
        <div className="relative">
          <DropPlace after={null} />
        </div>
        <ol aria-label="Steps" className="relative mb-1">
          {(whole ? steps : steps.slice(0, FIRST_SEEN)).map((step, i) => {
            const shared = { number: i + 1, context, canEdit, act, selected: chosen.includes(step.id), onSelect: select, focus: focus?.step === step.id ? focus : null };
            return isUse(step) ? <UseLine key={step.id} use={step} opened={opened} onPutBack={onPutBack} {...shared} /> : <PlainLine key={step.id} step={step} {...shared} />;
          })}
          {canEdit && (
            <li data-screen-only className="relative flex items-baseline border-b border-rule py-1.5">
              <span className="w-chip shrink-0 font-mono text-xs text-ink2">{steps.length + 1}</span>
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
                  act(last, { kind: 'paste', data: event.clipboardData });
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
            {isRun(steps, chosen) ? (
              <TextButton onClick={() => (onTakeOut(chosen), setSelected([]))}>Take out into shared steps</TextButton>
            ) : (
              <span className="text-ink2">only steps that follow each other can be taken out</span>
            )}
            <span className="ml-auto text-xs text-ink2">Ctrl C, X, D: copy, cut, duplicate · Alt ↑ ↓: move · Delete</span>
            <TextButton className="text-ink2" onClick={() => setSelected([])}>
              Clear selection
            </TextButton>
          </div>
        )}
      </div>
      {pasted !== null && <PastedTableDialog table={pasted.table} onPaste={(read) => (setPasted(null), paste(pasted.at, writtenSteps(read)))} onClose={() => setPasted(null)} />}
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

interface StepCommands {
  readonly focus: Focus | null;
  readonly act: Act;
  readonly place: (at: StepId | null, use: Step) => void;
  readonly rest: (step: StepId) => void;
  readonly paste: (at: StepId | null, steps: readonly Step[]) => void;
}

/** One stable function for all lines, so that typing in one step does not draw the others again. */
function useStepCommands(
  steps: readonly Step[],
  context: ParameterContext,
  update: Props['update'],
  onInsert: (at: { readonly at: StepId | null }) => void,
  onTable: (pasted: { readonly at: StepId | null; readonly table: PastedTable }) => void,
): StepCommands {
  const { project } = useFrame();
  const [focus, setFocus] = useState<Focus | null>(null);
  const latest = useLatest({ steps, context });
  const go = useCallback((step: StepId, part: StepPart, rests = false): boolean => {
    setFocus((f) => ({ step, part, rests, turn: (f?.turn ?? 0) + 1 }));
    return true;
  }, []);
  const rest = useCallback((step: StepId) => void go(step, 'action', true), [go]);
  const paste = useCallback(
    (at: StepId | null, pasted: readonly Step[]): void => {
      const total = latest.current.steps.length + pasted.length;
      if (total > LIMITS.steps)
        return void toast.error(`A case may have ${countOf(LIMITS.steps, 'step')}; with this paste it would have ${total.toLocaleString(locale())}. Nothing was pasted: split it over several cases.`);
      update(insertSteps(at, pasted));
      const last = pasted.at(-1);
      if (last !== undefined) go(last.id, 'action');
    },
    [go, latest, update],
  );
  /** Answers false when what is pasted is a text within a line. */
  const pasteFrom = useCallback(
    (at: StepId | null, data: DataTransfer): boolean => {
      const carried = takeSteps(data, project);
      const text = data.getData('text/plain');
      const table = parsePastedTable(text);
      if (carried !== null) {
        for (const parameter of carried.parameters) if (!latest.current.context.parameters.some((p) => p.name === parameter.name)) latest.current.context.onCreate(parameter.name, parameter);
        paste(at, freshSteps(carried.steps));
      } else if (table !== null && !table.sure) onTable({ at, table });
      else if (table !== null) paste(at, writtenSteps(stepsOfTable(table, table.roles)));
      else if (/[\n\r]/.test(text.trim()) || at === null) paste(at, writtenSteps(parsePastedSteps(text)));
      else return false;
      return true;
    },
    [latest, onTable, paste, project],
  );
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
      if (command.kind === 'paste') return pasteFrom(at, command.data);
      if (at === null) return false;
      const all = latest.current.steps;
      const place = all.findIndex((s) => s.id === at);
      switch (command.kind) {
        case 'change':
          update(withStep(at, 'step', command.part));
          return true;
        case 'changeUse':
          update(withStep<Step>(at, all[place]?.kind ?? 'step', command.part));
          return true;
        case 'go':
          return go(at, command.part);
        case 'neighbour': {
          const neighbour = all[place + command.direction];
          // None: the key leads on, out of the steps.
          return neighbour !== undefined && go(neighbour.id, command.part);
        }
        case 'move':
          update(moveSteps([at], command.direction));
          return go(at, command.part);
        case 'remove': {
          update(removeSteps([at]));
          const neighbour = all[place - 1] ?? all[place + 1];
          return neighbour === undefined || go(neighbour.id, 'action');
        }
      }
    },
    [go, latest, onInsert, pasteFrom, update],
  );
  const place = useCallback(
    (at: StepId | null, use: Step) => {
      update(insertSteps(at, [use]));
      go(use.id, 'action');
    },
    [go, update],
  );
  return { focus, act, place, rest, paste };
}
