import { useLayoutEffect, useRef } from 'react';

/** What a part was drawn with last, for handlers that stay the same from drawing to drawing. */
export function useLatest<T>(value: T): React.RefObject<T> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}
