import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** What is to stand in the address behind its path; null or empty: it is taken out. What is not named stays. */
export type ParameterChange = Readonly<Record<string, string | null>>;

/** What the address of the page says behind its path, and how it is changed in place: going back leads to the page before. */
export function useParameters(): readonly [URLSearchParams, (change: ParameterChange) => void] {
  const [search, setSearch] = useSearchParams();
  const change = useCallback((parameters: ParameterChange) => setSearch((now) => withParameters(now, parameters), { replace: true }), [setSearch]);
  return [search, change];
}

/** The same with what is to be changed. */
export function withParameters(search: URLSearchParams, change: ParameterChange): URLSearchParams {
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(change)) {
    if (value === null || value === '') next.delete(name);
    else next.set(name, value);
  }
  return next;
}
