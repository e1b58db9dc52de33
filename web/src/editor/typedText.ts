import type { ChangeSet, Text } from '@codemirror/state';
import type { ViewUpdate } from '@codemirror/view';

/** Where a frame is long in coming, as in a page nobody sees, what was typed is told after so many milliseconds. */
const LATEST_MS = 100;

/**
 * What was typed and is not told yet: it is told when it stands on the screen, so that a key does not wait for what
 * follows from it. Whoever needs it before calls `tell`.
 */
export class TypedText {
  readonly #tell: () => void;
  #typed: { readonly from: Text; readonly changes: ChangeSet } | null = null;
  #cancel: () => void = () => undefined;

  constructor(tell: () => void) {
    this.#tell = tell;
  }

  add({ startState, changes }: Pick<ViewUpdate, 'startState' | 'changes'>): void {
    if (this.#typed === null) this.#cancel = afterNextFrame(() => this.tell());
    this.#typed = this.#typed === null ? { from: startState.doc, changes } : { from: this.#typed.from, changes: this.#typed.changes.compose(changes) };
  }

  tell(): void {
    if (this.#typed === null) return;
    this.#cancel();
    this.#typed = null;
    this.#tell();
  }

  /** The text that is known elsewhere, when the editor has this one. */
  known(now: Text): Text {
    return this.#typed?.from ?? now;
  }

  /** What changes the known text as it changes the text with what was typed since, which stays. */
  among(change: ChangeSet): ChangeSet {
    const typed = this.#typed;
    if (typed === null) return change;
    this.#typed = { from: change.apply(typed.from), changes: typed.changes.map(change, true) };
    return change.map(typed.changes);
  }
}

function afterNextFrame(run: () => void): () => void {
  let later: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => (later = setTimeout(run, 0)));
  const latest = setTimeout(run, LATEST_MS);
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(later);
    clearTimeout(latest);
  };
}
