import { placeSelector } from './useLastPlace.ts';

/** A mark beside each place with an open remark. The parts of a page that show a place say so; nothing of them need know of remarks. */
export function PlaceMarks({ paths }: { readonly paths: readonly string[] }) {
  const places = [...new Set(paths)].filter((path) => path !== '');
  if (places.length === 0) return null;
  const selectors = places.map(placeSelector);
  return <style>{`${selectors.join(',')} { box-shadow: -3px 0 0 var(--color-marker); }`}</style>;
}
