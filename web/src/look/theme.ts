import { useSyncExternalStore } from 'react';

export const THEMES = ['system', 'day', 'night'] as const;
export type Theme = (typeof THEMES)[number];
export const THEME_WORD: Record<Theme, string> = { system: 'As the system', day: 'Day', night: 'Night' };

const KEPT = 'caderno-theme';
const listeners = new Set<() => void>();

/** The theme somebody chose in this browser. */
export function chosenTheme(): Theme {
  const kept = localStorage.getItem(KEPT);
  return THEMES.find((theme) => theme === kept) ?? 'system';
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEPT, theme);
  applyTheme();
  for (const listener of listeners) listener();
}

export function useTheme(): Theme {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, chosenTheme);
}

/** Puts the theme on the page, and follows the system where that is chosen. Once, before anything is drawn. */
export function startTheme(): void {
  applyTheme();
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', applyTheme);
}

/** On paper it is day, also for what takes its colours once and draws with them; off it the theme is back. */
export function putOnPaper(is: boolean): void {
  if (is) document.documentElement.dataset.theme = 'day';
  else applyTheme();
}

function applyTheme(): void {
  const theme = chosenTheme();
  const isNight = theme === 'night' || (theme === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.dataset.theme = isNight ? 'night' : 'day';
}
