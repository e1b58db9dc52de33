import type { ReactNode } from 'react';

interface Props {
  readonly label: ReactNode;
  /** What helps to fill it in. */
  readonly hint?: ReactNode;
  /** Where it is one of many small ones, or its name is a sentence. */
  readonly pale?: boolean;
  readonly className?: string;
  readonly children: ReactNode;
}

/** Something to fill in, with its name above it. */
export function Labelled({ label, hint, pale = false, className = '', children }: Props) {
  return (
    <label className={`block ${className}`}>
      <span className={pale ? 'text-xs text-ink2' : 'font-semibold'}>{label}</span>
      {hint !== undefined && <span className="text-ink2"> {hint}</span>}
      <span className="mt-0.5 block">{children}</span>
    </label>
  );
}
