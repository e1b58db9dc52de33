import type { ReactNode } from 'react';

interface Props {
  /** Of those of one name one is picked. */
  readonly name: string;
  readonly checked: boolean;
  readonly onPick: () => void;
  readonly disabled?: boolean;
  /** What stands beside it has several lines: the first is beside it. */
  readonly atTop?: boolean;
  readonly className?: string;
  readonly children: ReactNode;
}

/** One of several answers, with its words. */
export function Answer({ name, checked, onPick, disabled = false, atTop = false, className = '', children }: Props) {
  return (
    <label className={`flex min-h-7 gap-2 ${atTop ? 'items-start' : 'items-center'} ${className}`}>
      <input type="radio" name={name} checked={checked} disabled={disabled} onChange={onPick} className={atTop ? 'mt-1' : ''} />
      {children}
    </label>
  );
}
