import { applyDiff, asJson, diffContent, type ContentDiff, type Json } from '@caderno/core/versions';

/** A value on its way to another thread: whole at first, then what changed since the one before. */
export type Parcel = { readonly kind: 'whole'; readonly value: Json } | { readonly kind: 'since'; readonly diff: ContentDiff };

/**
 * Sends values that mostly stay the same: to copy ten thousand rows to a worker at every keystroke takes longer than a
 * keystroke may. Parts that are the same object are known to be the same without being looked at.
 */
export class Sender<T> {
  #last: Json | undefined;

  pack(value: T): Parcel {
    const [last, now] = [this.#last, asJson(value)];
    this.#last = now;
    return last === undefined ? { kind: 'whole', value: now } : { kind: 'since', diff: diffContent(last, now) };
  }
}

/** Receives what one {@link Sender} sends, in the order in which it was sent. */
export class Receiver<T> {
  #last: Json = null;

  unpack(parcel: Parcel): T {
    this.#last = parcel.kind === 'whole' ? parcel.value : applyDiff(parcel.diff, this.#last);
    // What was packed is a T, and what is unpacked is equal to it.
    return this.#last as T;
  }
}
