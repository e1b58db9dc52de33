export interface SourceStretch {
  readonly start: number;
  readonly end: number;
}

/** The stretch of Markdown source that a selection within rendered text marks; null when it marks nothing there. */
export function markedSource(container: HTMLElement, source: string): SourceStretch | null {
  const selection = window.getSelection();
  if (selection === null || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  if (!container.contains(range.commonAncestorContainer)) return null;
  const pieces = [...container.querySelectorAll<HTMLElement>('[data-start]')].filter((piece) => range.intersectsNode(piece) && piece.textContent !== '');
  const [first, last] = [pieces[0], pieces.at(-1)];
  if (first === undefined || last === undefined) return null;
  const from = Number(first.dataset.start) + (first.contains(range.startContainer) ? range.startOffset : 0);
  const to = last.contains(range.endContainer) ? Number(last.dataset.start) + range.endOffset : Number(last.dataset.end);
  return trimmed(source, from, to);
}

/** Marks a stretch of the source within its rendered text; what is no longer shown is left out, and nothing is marked when nothing of it is. */
export function markSource(container: HTMLElement, { start, end }: SourceStretch): void {
  const pieces = [...container.querySelectorAll<HTMLElement>('[data-start]')].filter((piece) => Number(piece.dataset.start) < end && Number(piece.dataset.end) > start);
  const [first, last] = [pieces[0]?.firstChild, pieces.at(-1)?.firstChild];
  if (!(first instanceof Text) || !(last instanceof Text)) return;
  const [from, to] = [start - Number(pieces[0]?.dataset.start), end - Number(pieces.at(-1)?.dataset.start)];
  window.getSelection()?.setBaseAndExtent(first, Math.max(0, from), last, Math.min(last.length, to));
}

function trimmed(source: string, from: number, to: number): SourceStretch | null {
  let [start, end] = [from, to];
  while (start < end && /\s/.test(source.charAt(start))) start += 1;
  while (end > start && /\s/.test(source.charAt(end - 1))) end -= 1;
  return start < end ? { start, end } : null;
}
