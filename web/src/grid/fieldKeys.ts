import type { KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';

/** What a grid of fields does besides moving. */
export interface FieldGrid {
  /** Makes the line after the last; without it Enter in the last line leads nowhere. */
  readonly onNext?: (() => void) | undefined;
  /** Takes a line away: only where losing the word before the caret, which the same keys do elsewhere, matters less. */
  readonly onRemove?: ((line: number) => void) | undefined;
}

/**
 * The keys of all grids whose cells are fields one types in: up and down to the field above and below, Enter to the
 * next line, which is made after the last, Ctrl Backspace takes the line away. The grid is marked `data-fields`, each of
 * its lines `data-line`. A field that offers a list keeps its arrows.
 */
export function fieldKeys({ onNext, onRemove }: FieldGrid): (event: KeyboardEvent<HTMLElement>) => void {
  return (event) => {
    const field = event.target;
    if (!(field instanceof HTMLInputElement) || event.defaultPrevented || event.altKey) return;
    const grid = field.closest('[data-fields]');
    const line = field.closest('[data-line]');
    if (grid === null || line === null) return;
    const lines = linesOf(grid);
    const at = lines.indexOf(line);
    const column = fieldsOf(line).indexOf(field);
    const control = event.ctrlKey || event.metaKey;
    if (control && event.key === 'Backspace' && onRemove !== undefined) {
      flushSync(() => onRemove(at));
      focusLine(grid, at, column);
    } else if (event.key === 'Enter' && !control && (at < lines.length - 1 || onNext !== undefined)) {
      if (at === lines.length - 1) flushSync(() => onNext?.());
      focusLine(grid, at + 1, 0);
    } else if (event.key === 'ArrowDown' && field.list === null) focusLine(grid, Math.min(at + 1, lines.length - 1), column);
    else if (event.key === 'ArrowUp' && field.list === null) focusLine(grid, Math.max(at - 1, 0), column);
    else return;
    event.preventDefault();
  };
}

/** At once, for the next key may come before the next frame. */
function focusLine(grid: Element, line: number, column: number): void {
  const lines = linesOf(grid);
  const there = lines[Math.min(line, lines.length - 1)];
  const fields = there === undefined ? [] : fieldsOf(there);
  const field = fields[Math.min(column, fields.length - 1)];
  field?.focus();
  field?.select();
}

function linesOf(grid: Element): Element[] {
  return [...grid.querySelectorAll('[data-line]')];
}

function fieldsOf(line: Element): HTMLInputElement[] {
  return [...line.querySelectorAll('input')].filter((f) => f.type !== 'checkbox');
}
