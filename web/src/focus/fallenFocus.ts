/** Where the focus was before it fell: the element and, from it outwards, at which child of which parent it stood. */
interface Trail {
  readonly element: Element;
  readonly steps: readonly { readonly parent: Element; readonly index: number }[];
}

/** Nothing that is typed goes astray by landing on one of these. */
const RESTING = 'a[href], button:not(:disabled), summary, [tabindex]:not([tabindex="-1"]):not(input):not(textarea):not(select)';
/** What Headless UI puts before and after a dialog, to lead the focus back into it. */
const GUARD = '[data-headlessui-focus-guard]';
/** What lies over the page and goes away again. */
export const OVERLAY = '[role="dialog"], [role="menu"], [role="listbox"]';
const OVER_OR_GUARD = `${OVERLAY}, ${GUARD}`;

let trail: Trail | null = null;
/** The trail of what had the focus before something was laid over the page. */
let below: Trail | null = null;
let byPointer = false;

/** Follows the focus through the document, so that it can be picked up where it fell. Once for the whole application. */
export function followFocus(document: Document): () => void {
  const focusIn = (event: FocusEvent): void => {
    if (!(event.target instanceof Element)) return;
    trail = trailOf(event.target);
    if (event.target.closest(OVER_OR_GUARD) === null) below = trail;
  };
  const focusOut = (event: FocusEvent): void => {
    // Somebody pointed at the paper: the page itself is meant.
    if (event.relatedTarget === null && byPointer) trail = null;
  };
  const pointerDown = (): void => {
    byPointer = true;
    setTimeout(() => (byPointer = false));
  };
  const pickUp = (): void => void requestAnimationFrame(() => requestAnimationFrame(() => hasFallen(document) && pickUpFocus(document)));
  const observer = new MutationObserver(() => hasFallen(document) && pickUp());
  document.addEventListener('focusin', focusIn);
  document.addEventListener('focusout', focusOut);
  document.addEventListener('pointerdown', pointerDown, true);
  observer.observe(document.body, { childList: true, subtree: true, attributes: true, attributeFilter: ['disabled', 'hidden', 'class'] });
  return () => {
    document.removeEventListener('focusin', focusIn);
    document.removeEventListener('focusout', focusOut);
    document.removeEventListener('pointerdown', pointerDown, true);
    observer.disconnect();
    trail = null;
    below = null;
  };
}

/** Whether the focus is on the page because what had it is gone or can no longer have it. */
export function hasFallen(document: Document): boolean {
  return trail !== null && (document.activeElement === document.body || document.activeElement === null);
}

/** Whether what had the focus was a link: who followed it means the page that it led to. */
export function hasFollowedLink(): boolean {
  return trail?.element.matches('a[href]') ?? false;
}

/** Where the focus was on the page below what is laid over it now; not taken from where somebody went meanwhile, nor from the dialog that came next. */
export function focusBelow(): () => void {
  const before = below;
  return () => {
    if (before === null) return;
    const document = before.element.ownerDocument;
    const now = document.activeElement;
    if (now?.closest('[role="dialog"]') != null || (now !== document.body && now !== before.element && now?.closest(OVER_OR_GUARD) == null)) return;
    if (canHold(before.element) && before.element instanceof HTMLElement) before.element.focus();
    else restAt(document, before);
  };
}

/** Puts a fallen focus to the nearest thing that is still there; at last to the page. */
export function pickUpFocus(document: Document): void {
  if (trail !== null) restAt(document, canHoldTrail(trail) ? trail : (below ?? trail));
}

function canHoldTrail({ steps }: Trail): boolean {
  return steps.some(({ parent }) => parent.isConnected && parent.closest('main, [role="dialog"]') !== null);
}

function restAt(document: Document, { element, steps }: Trail): void {
  const page = document.querySelector<HTMLElement>('main');
  const place = canHold(element) && element instanceof HTMLElement ? element : nearest(steps, page);
  (place ?? page)?.focus({ preventScroll: place === undefined });
}

/** The first thing at or after the place, else the last before it, in the nearest part of the page that is left. */
function nearest(steps: Trail['steps'], page: HTMLElement | null): HTMLElement | undefined {
  for (const { parent, index } of steps) {
    if (!parent.isConnected) continue;
    if (parent === page || parent.contains(page)) return undefined;
    const children = [...parent.children];
    const after = children.slice(index).flatMap(restingPlaces);
    const place = after[0] ?? children.slice(0, index).flatMap(restingPlaces).at(-1);
    if (place !== undefined) return place;
    if (parent instanceof HTMLElement && parent.matches('section[tabindex]')) return parent;
  }
  return undefined;
}

function restingPlaces(within: Element): HTMLElement[] {
  return [within, ...within.querySelectorAll(RESTING)].filter((e): e is HTMLElement => e instanceof HTMLElement && e.matches(RESTING) && !e.matches(GUARD) && canHold(e));
}

function canHold(element: Element): boolean {
  return element.isConnected && !element.matches(':disabled') && element.getClientRects().length > 0;
}

function trailOf(element: Element): Trail {
  const steps: { parent: Element; index: number }[] = [];
  for (let child = element; child.parentElement !== null; child = child.parentElement) steps.push({ parent: child.parentElement, index: [...child.parentElement.children].indexOf(child) });
  return { element, steps };
}
