import { PLACE } from './useLastPlace.ts';

/** A mark beside each place with an open remark. The parts of a page that show a place say so; nothing of them need know of remarks. */
export function PlaceMarks({ paths }: { readonly paths: readonly string[] }) {
  const places = [...new Set(paths)].filter((path) => path !== '');
  if (places.length === 0) return null;
  // A step is marked for its fields too, where these are not shown apart.
  const selectors = places.map((path) => `[${PLACE}="${CSS.escape(path)}"]`);
  return <style>{`${selectors.join(',')} { box-shadow: inset -3px 0 0 var(--color-marker); }`}</style>;
}
