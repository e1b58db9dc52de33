/** The stretch of Markdown source that a selection within rendered text marks; null when it marks nothing there. */
export function markedSource(container: HTMLElement, source: string): { readonly start: number; readonly end: number } | null {
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

function trimmed(source: string, from: number, to: number): { start: number; end: number } | null {
  let [start, end] = [from, to];
  while (start < end && /\s/.test(source.charAt(start))) start += 1;
  while (end > start && /\s/.test(source.charAt(end - 1))) end -= 1;
  return start < end ? { start, end } : null;
}
