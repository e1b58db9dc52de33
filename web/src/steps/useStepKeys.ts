import { isUse, type Step, type StepId } from '@caderno/core/cases';
import type { ClipboardEvent, KeyboardEvent } from 'react';
import { useFrame } from '../frame/index.ts';
import { putSteps } from './stepClipboard.ts';
import { freshSteps, insertSteps, moveSteps, removeSteps, type StepsEdit } from './stepEdits.ts';
import type { Act } from './stepCommand.ts';
import type { ParameterContext } from './parameterEditing.ts';

interface Keys {
  readonly steps: readonly Step[];
  /** Those that are selected. */
  readonly chosen: readonly StepId[];
  readonly context: ParameterContext;
  readonly canEdit: boolean;
  readonly update: (edit: StepsEdit) => void;
  readonly select: (ids: readonly StepId[]) => void;
  /** Puts the focus on a step without writing in it. */
  readonly rest: (id: StepId) => void;
  readonly act: Act;
}

interface Handlers {
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly onCopy: (event: ClipboardEvent) => void;
  readonly onCut: (event: ClipboardEvent) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
}

/** What keys do with whole steps: those selected, or the one the focus rests on. While one writes, they are the text's. */
export function useStepKeys({ steps, chosen, context, canEdit, update, select, rest, act }: Keys): Handlers {
  const { project } = useFrame();
  const meant = (target: EventTarget): readonly StepId[] => {
    const here = stepAt(target);
    return chosen.length > 0 ? chosen : steps.filter((s) => s.id === here).map((s) => s.id);
  };
  const remove = (ids: readonly StepId[]): void => {
    const first = steps.findIndex((s) => ids.includes(s.id));
    const left = steps.filter((s) => !ids.includes(s.id));
    const next = left[Math.min(first, left.length - 1)];
    update(removeSteps(ids));
    select([]);
    if (next !== undefined) rest(next.id);
  };
  const duplicate = (ids: readonly StepId[]): void => {
    const copies = freshSteps(steps.filter((s) => ids.includes(s.id)));
    const [last, first] = [steps.findLast((s) => ids.includes(s.id)), copies[0]];
    update(insertSteps(last?.id ?? null, copies));
    select(chosen.length > 0 ? copies.map((s) => s.id) : []);
    if (first !== undefined) rest(first.id);
  };
  const walk = (event: KeyboardEvent, direction: -1 | 1): boolean => {
    const here = stepAt(event.target);
    const at = steps.findIndex((s) => s.id === here);
    const [step, next] = [steps[at], steps[at + direction]];
    if (step === undefined || next === undefined) return false;
    if (event.shiftKey) select([...new Set([...chosen, step.id, next.id])]);
    rest(next.id);
    return true;
  };
  /** Answers whether the key meant something. */
  const edit = (event: KeyboardEvent, ids: readonly StepId[]): boolean => {
    const control = event.ctrlKey || event.metaKey;
    if (!canEdit || ids.length === 0) return false;
    if (event.key === 'Delete' || event.key === 'Backspace') remove(ids);
    else if (control && event.key.toLowerCase() === 'd') duplicate(ids);
    else if (event.altKey && event.key === 'ArrowUp') update(moveSteps(ids, -1));
    else if (event.altKey && event.key === 'ArrowDown') update(moveSteps(ids, 1));
    else return false;
    return true;
  };
  const pick = (event: KeyboardEvent): boolean => {
    const here = steps.find((s) => s.id === stepAt(event.target))?.id;
    if (event.key === 'Escape' && chosen.length > 0) select([]);
    else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') select(steps.map((s) => s.id));
    else if (event.key === ' ' && here !== undefined && isResting(event.target)) select(chosen.includes(here) ? chosen.filter((id) => id !== here) : [...chosen, here]);
    else if (event.key === 'ArrowUp' && !event.altKey) return walk(event, -1);
    else if (event.key === 'ArrowDown' && !event.altKey) return walk(event, 1);
    else return false;
    return true;
  };
  const isOfSteps = (target: EventTarget): boolean => !isWriting(target) && (stepAt(target) !== null || chosen.length > 0);
  const copy = (event: ClipboardEvent): readonly StepId[] => {
    const ids = isOfSteps(event.target) && getSelection()?.isCollapsed !== false ? meant(event.target) : [];
    if (ids.length === 0) return ids;
    event.preventDefault();
    putSteps(event.clipboardData, project, steps.filter((s) => ids.includes(s.id)), context.parameters);
    return ids;
  };
  return {
    onKeyDown: (event) => {
      if (event.defaultPrevented || !isOfSteps(event.target)) return;
      if (pick(event) || edit(event, meant(event.target))) event.preventDefault();
    },
    onCopy: (event) => void copy(event),
    onCut: (event) => {
      const ids = canEdit ? copy(event) : [];
      if (ids.length > 0) remove(ids);
    },
    onPaste: (event) => {
      if (!canEdit || event.defaultPrevented || !isOfSteps(event.target)) return;
      event.preventDefault();
      const ids = meant(event.target);
      act(steps.findLast((s) => ids.includes(s.id))?.id ?? null, { kind: 'paste', data: event.clipboardData });
    },
  };
}

function stepAt(target: EventTarget): string | null {
  return target instanceof Element ? (target.closest('[data-step]')?.getAttribute('data-step') ?? null) : null;
}

/** In a text, a field or a dialog: its keys are its own. */
function isWriting(target: EventTarget): boolean {
  return target instanceof Element && target.closest('[contenteditable="true"], input:not([type="checkbox"]), textarea, [role="dialog"], [role="listbox"]') !== null;
}

function isResting(target: EventTarget): boolean {
  return target instanceof Element && target.matches('[data-resting]');
}

/** Whether a key on the line of a use is for the steps that are selected. */
export function isForSelection(step: Step, event: KeyboardEvent, selected: boolean): boolean {
  return isUse(step) && (event.shiftKey || event.ctrlKey || event.metaKey || (selected && (event.altKey || event.key === 'Delete' || event.key === 'Backspace')));
}
