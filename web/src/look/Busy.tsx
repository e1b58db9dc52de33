import { useEffect, useState } from 'react';

/** What is done at once is not told of on the way. */
const SOON_MS = 400;

/** Says what is being done, once it takes a while. */
export function Busy({ children }: { readonly children: string }) {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), SOON_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <span role="status" className="flex items-center gap-2 text-ink2">
      {isLong && (
        <>
          <progress aria-label={children} className="w-20" />
          {children}
        </>
      )}
    </span>
  );
}
