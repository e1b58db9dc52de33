import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { useState, type KeyboardEvent, type RefObject } from 'react';
import type { Selection } from '../look/index.ts';
import { idsOf, type ListLine } from './listLines.ts';

/** Lines that Page Down goes on by. */
const PAGE = 12;

/** Frames in which a line that was scrolled to must have been drawn. */
const MOST_FRAMES = 20;

interface Given<K extends ArtefactKind> {
  readonly lines: readonly ListLine<K>[];
  readonly selection: Selection<ArtefactId>;
  readonly current: ArtefactId | null;
  readonly scrollTo: (index: number) => void;
  /** Told of the line the keys came to; absent: it is only looked at. */
  readonly onCome?: ((id: ArtefactId) => void) | undefined;
}

/** What keys do in a list of lines. */
export interface LineKeys {
  /** The line that Tab leads to. */
  readonly active: number;
  readonly onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
  readonly onFocus: (index: number) => void;
}

/**
 * The keys of a list: arrows, Page and Home and End move, with Shift they select on the way; Space selects, Ctrl A all
 * that match, Escape none. One line is in the order of Tab. A line is found by its `data-line`, its link is focused; in
 * a table the keys stay in the cell's column (`data-cell`), and lead on along the line.
 */
export function useLineKeys<K extends ArtefactKind>(listRef: RefObject<HTMLElement | null>, { lines, selection, current, scrollTo, onCome }: Given<K>): LineKeys {
  const [focused, setFocused] = useState<number | null>(null);
  /** Where Shift was first held, and what was selected then: going back takes out again what going on took in. */
  const [anchor, setAnchor] = useState<{ readonly at: number; readonly base: readonly ArtefactId[] } | null>(null);
  const isArtefact = (index: number): boolean => lines[index]?.kind === 'artefact';
  const at = current === null ? -1 : lines.findIndex((line) => line.kind === 'artefact' && line.listed.id === current);
  const active = focused !== null && isArtefact(focused) ? focused : at >= 0 ? at : lines.findIndex((line) => line.kind === 'artefact');
  const goTo = (index: number, from: number, through: boolean, cell: string | null): void => {
    const line = lines[index];
    if (line?.kind !== 'artefact') return;
    const began = through ? (anchor ?? { at: from, base: selection.chosen }) : null;
    setAnchor(began);
    if (began !== null) selection.select([...began.base, ...idsOf(lines.slice(Math.min(began.at, index), Math.max(began.at, index) + 1))]);
    setFocused(index);
    scrollTo(index);
    focusLine(listRef.current, index, cell, MOST_FRAMES);
    onCome?.(line.listed.id);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    const holder = event.target instanceof Element ? event.target.closest('[data-line]') : null;
    // What stands in a line has keys of its own: boxes and buttons are pressed by Space, choices are opened by arrows.
    if (holder === null || event.defaultPrevented || (event.key === ' ' && !(event.target instanceof HTMLAnchorElement))) return;
    const from = Number(holder.getAttribute('data-line'));
    const cell = event.target instanceof Element ? event.target.closest('[data-cell]') : null;
    const beside = cell === null ? undefined : neighbour(holder, cell, event.key);
    const to = targetOf(event.key, from, lines.length, isArtefact);
    const line = lines[from];
    if (beside !== undefined) beside.focus();
    else if (to !== null) goTo(to, from, event.shiftKey, cell?.getAttribute('data-cell') ?? null);
    else if (event.key === ' ' && line?.kind === 'artefact') selection.toggle(line.listed.id, event.shiftKey);
    else if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) selection.selectAll();
    else if (event.key === 'Escape' && selection.chosen.length > 0) selection.clear();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return { active, onKeyDown, onFocus: setFocused };
}

/** The cell before or after another in its line. */
function neighbour(line: Element, cell: Element, key: string): HTMLElement | undefined {
  if (key !== 'ArrowLeft' && key !== 'ArrowRight') return undefined;
  const cells = [...line.querySelectorAll<HTMLElement>('[data-cell]')];
  return cells[cells.findIndex((c) => c === cell) + (key === 'ArrowRight' ? 1 : -1)];
}

/** Focuses a cell of a line, or else its link, as soon as the line has been drawn. */
function focusLine(list: HTMLElement | null, index: number, cell: string | null, frames: number): void {
  const line = list?.querySelector(`[data-line="${index}"]`);
  const place = (cell === null ? null : line?.querySelector<HTMLElement>(`[data-cell="${cell}"]`)) ?? line?.querySelector<HTMLElement>('a[href]');
  if (place != null) place.focus({ preventScroll: true });
  else if (frames > 0) requestAnimationFrame(() => focusLine(list, index, cell, frames - 1));
}

/** The line a key leads to; null: it leads nowhere, as at the end. */
function targetOf(key: string, from: number, count: number, isArtefact: (index: number) => boolean): number | null {
  const steps: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1, PageDown: PAGE, PageUp: -PAGE, Home: -count, End: count };
  const step = steps[key];
  if (step === undefined) return null;
  const direction = Math.sign(step);
  const wanted = Math.min(count - 1, Math.max(0, from + step));
  for (let index = wanted; index >= 0 && index < count; index += direction) if (isArtefact(index)) return index === from ? null : index;
  // At a head of a group at the very end the last artefact before it is meant.
  for (let index = wanted; index >= 0 && index < count; index -= direction) if (isArtefact(index)) return index === from ? null : index;
  return null;
}
