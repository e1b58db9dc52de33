import type { Refusal } from '@caderno/contract';

/** The one error class for what the server refuses; thrown anywhere, answered in one place. */
export class DomainError extends Error {
  readonly refusal: Refusal;

  constructor(refusal: Refusal, options?: ErrorOptions) {
    super(refusal.code, options);
    this.name = 'DomainError';
    this.refusal = refusal;
  }
}
