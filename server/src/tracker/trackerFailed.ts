import type { TrackerFailure } from '@caderno/contract';

/** The tracker did not do its part; nothing of ours is wrong. */
export class TrackerFailed extends Error {
  readonly failure: TrackerFailure;
  constructor(failure: TrackerFailure, options?: ErrorOptions) {
    super(failure, options);
    this.name = 'TrackerFailed';
    this.failure = failure;
  }
}
