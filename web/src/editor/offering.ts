import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { Facet, type Extension } from '@codemirror/state';

/** What is offered where the cursor stands; null: nothing. */
type Offer = (at: CompletionContext) => CompletionResult | null;

const OFFER = Facet.define<Offer, Offer>({ combine: (offers) => offers[0] ?? (() => null) });

/**
 * Words offered while one writes. What is shown is brought up with each key, and stays when the field learns of others to
 * offer: an offer asked for anew cannot be taken until it is answered, and what is typed next would go on without it.
 */
export function offering(offer: Offer): Extension {
  return [OFFER.of(offer), autocompletion({ override: [offered], icons: false, activateOnTypingDelay: 0 })];
}

/** The same to the editor whatever is offered. */
function offered(at: CompletionContext): CompletionResult | null {
  const result = at.state.facet(OFFER)(at);
  return result === null ? null : { ...result, update: (_result, _from, _to, later) => offered(later) };
}
