import { flushSync } from 'react-dom';

const FIELD = 'input:not([type="checkbox"], [type="radio"], [type="file"], [readonly], :disabled), textarea:not([readonly], :disabled)';

/** Does what adds a line, and goes on in the first field that came with it, what stands there selected: what is typed next is its name. */
export function goOnInAdded(button: HTMLElement, add: () => void): void {
  const page = button.closest('[role="dialog"], main') ?? button.ownerDocument.body;
  const before = new Set(fieldsIn(page));
  flushSync(add);
  const field = fieldsIn(page).find((f) => !before.has(f));
  field?.focus();
  field?.select();
}

function fieldsIn(page: Element): (HTMLInputElement | HTMLTextAreaElement)[] {
  return [...page.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>(FIELD)];
}
