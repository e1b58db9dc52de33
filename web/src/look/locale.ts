/** How dates and numbers are written, besides as the browser does: tags of BCP 47. The words around them stay English. */
export const LOCALES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'es-ES', 'pt-PT', 'sv-SE'] as const;
export type Locale = (typeof LOCALES)[number];

const KEPT = 'caderno-locale';

let chosen = kept();

/** Workers and servers have nothing that a person chose. */
function kept(): Locale | undefined {
  const tag = 'localStorage' in globalThis ? localStorage.getItem(KEPT) : null;
  return LOCALES.find((known) => known === tag);
}

/** What somebody chose in this browser; undefined: as the browser does. Whatever is drawn from now on is written so. */
export function locale(): Locale | undefined {
  return chosen;
}

export function chooseLocale(now: Locale | undefined): void {
  chosen = now;
  if (now === undefined) localStorage.removeItem(KEPT);
  else localStorage.setItem(KEPT, now);
}

let numbers: { readonly of: Locale | undefined; readonly format: Intl.NumberFormat } | null = null;

/** For where many numbers are written at once, as in a table: making a format takes longer than writing hundreds of numbers with it. */
export function numberFormat(): Intl.NumberFormat {
  if (numbers === null || numbers.of !== chosen) numbers = { of: chosen, format: new Intl.NumberFormat(chosen) };
  return numbers.format;
}

/** A date, a time and a number as they are written there, to choose by; undefined: by the browser. */
export function localeExample(of: Locale | undefined): string {
  const day = new Date(2026, 10, 28, 14, 5);
  return `${day.toLocaleString(of, { dateStyle: 'medium', timeStyle: 'short' })} · ${(12_345.6).toLocaleString(of)}`;
}
