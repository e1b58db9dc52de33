import { hasFallen, hasFollowedLink, OVERLAY } from './fallenFocus.ts';

/** What a single key does: it leads elsewhere, or it makes or changes something. */
export type KeyEffect = 'leads' | 'changes';

const FIELD = 'input, textarea, select, [contenteditable="true"], [role="textbox"], [role="combobox"]';
/** Letters typed here choose, move or write. */
const IN_USE = '[role="grid"], [role="menu"], [role="listbox"], [role="dialog"], [role="slider"], [role="radiogroup"], [role="tablist"]';
/** A menu opens, a grip moves, by the arrows. */
const USES_ARROWS = '[aria-haspopup], [aria-roledescription]';
const TICK = 'input[type="checkbox"], input[type="radio"]';

/**
 * Whether a key without Ctrl, pressed there, is meant for the page: nothing is open, no field, list or menu has the
 * focus, and the focus did not just fall there (unless from a link that led here, for what leads on). What changes something asks for the page itself or a link on it; a
 * button, a tick or a choice leaves the keys that lead elsewhere alone, but for those it uses itself.
 */
export function isMeantForPage(target: EventTarget | null, key: string, deed: KeyEffect, document: Document): boolean {
  if (isSomethingOpen(document)) return false;
  if (hasFallen(document) && !(deed === 'leads' && hasFollowedLink())) return false;
  if (!(target instanceof Element) || target === document.body) return true;
  if (target.closest(IN_USE) !== null) return false;
  const arrow = /^(?:Arrow|Home$|End$|Page)/.test(key);
  if (target.matches(TICK)) return deed === 'leads' && !arrow;
  if (target.closest(FIELD) !== null) return false;
  if (target.matches('a[href]') || target.matches('[tabindex="-1"]:not(button)')) return true;
  return deed === 'leads' && !(arrow && target.matches(USES_ARROWS));
}

function isSomethingOpen(document: Document): boolean {
  return [...document.querySelectorAll(OVERLAY)].some((e) => e.getClientRects().length > 0);
}

export function isDialogOpen(document: Document): boolean {
  return document.querySelector('[role="dialog"]') !== null;
}
