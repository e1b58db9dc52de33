import type { ReactNode } from 'react';

interface Props {
  /** Of those of one name one is picked. */
  readonly name: string;
  readonly checked: boolean;
  readonly onPick: () => void;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly children: ReactNode;
}

/** One of several answers, with its words. */
export function Answer({ name, checked, onPick, disabled = false, className = '', children }: Props) {
  return (
    <label className={`flex min-h-7 items-center gap-2 ${className}`}>
      <input type="radio" name={name} checked={checked} disabled={disabled} onChange={onPick} />
      {children}
    </label>
  );
}
