import { useEffect, useState } from 'react';
import { Button } from './Button.tsx';

const LONG_MS = 8_000;

interface Props {
  /** What is being done: `Reading …`. */
  readonly children: string;
  readonly onRetry: () => void;
}

/** Stands where something will stand; when that takes long it says so, and offers to try again. */
export function Waiting({ children, onRetry }: Props) {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className="p-7 text-ink2" role="status">
      {children}
      {isLong && (
        <span className="mt-2 flex items-center gap-3 text-sm">
          It takes longer than it should. <Button onClick={onRetry}>Try again</Button>
        </span>
      )}
    </div>
  );
}
