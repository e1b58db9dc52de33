/** Codes of ISO 4217 that are written without being explained. */
export const CURRENCY_CODES = 'EUR|USD|GBP|CHF|JPY|CAD|AUD|NZD|SEK|NOK|DKK|ISK|PLN|CZK|HUF|RON|BGN|RSD|UAH|TRY|ILS|CNY|HKD|SGD|KRW|INR|BRL|ARS|CLP|COP|MXN|ZAR|MAD|EGP|AED|SAR|THB|IDR|MYR|PHP|VND';

const CODES: ReadonlySet<string> = new Set(CURRENCY_CODES.split('|'));

export function isCurrency(word: string): boolean {
  return CODES.has(word);
}
