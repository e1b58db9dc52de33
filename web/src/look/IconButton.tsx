import type { ReactNode } from 'react';

interface Props {
  /** What it does, and with what: `Move Channel up`. */
  readonly label: string;
  readonly icon: ReactNode;
  readonly disabled?: boolean;
  readonly onClick: () => void;
}

/** A small button beside a line; its words are heard, and seen under the pointer. */
export function IconButton({ label, icon, disabled = false, onClick }: Props) {
  return (
    <button type="button" aria-label={label} title={label} disabled={disabled} onClick={onClick} className="grid size-7 place-items-center rounded text-ink2 hover:bg-page2 disabled:opacity-30">
      {icon}
    </button>
  );
}
