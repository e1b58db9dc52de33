import { AGREEMENT_REFUSALS, type AgreementRefusal } from './refusals/agreement.ts';
import { DESIGN_REFUSALS, type DesignRefusal } from './refusals/design.ts';
import { EXCHANGE_REFUSALS, type ExchangeRefusal } from './refusals/exchange.ts';
import { MAIL_REFUSALS, type MailRefusal } from './refusals/mail.ts';
import { PEOPLE_REFUSALS, type PeopleRefusal } from './refusals/people.ts';
import { REQUEST_REFUSALS, type RequestRefusal } from './refusals/request.ts';
import type { Refusals } from './refusals/refusals.ts';

/**
 * Everything the server refuses, as a code with its facts. Sentences are made by {@link refusalSentence} only.
 * Codes are stable and one to one with their meaning.
 */
export type Refusal = RequestRefusal | PeopleRefusal | DesignRefusal | AgreementRefusal | ExchangeRefusal | MailRefusal;

/** The stable name of a refusal. */
export type RefusalCode = Refusal['code'];

const REFUSALS: Refusals<Refusal> = { ...REQUEST_REFUSALS, ...PEOPLE_REFUSALS, ...DESIGN_REFUSALS, ...AGREEMENT_REFUSALS, ...EXCHANGE_REFUSALS, ...MAIL_REFUSALS };

const codes = Object.keys(REFUSALS) as RefusalCode[];

/** The HTTP status of every code; a code without one does not compile. */
export const STATUS_OF_REFUSAL = Object.fromEntries(codes.map((code) => [code, REFUSALS[code].status])) as Readonly<Record<RefusalCode, number>>;

/** What happened, what was kept and what to do, in words. */
export function refusalSentence(refusal: Refusal): string {
  return sentenceOf(refusal.code, refusal);
}

function sentenceOf<C extends RefusalCode>(code: C, refusal: Extract<Refusal, { readonly code: C }>): string {
  return REFUSALS[code].sentence(refusal);
}
